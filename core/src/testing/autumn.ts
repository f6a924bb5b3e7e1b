import type { Term } from '../calendar/plan';

export const READING_WEEK = { from: '2026-10-12', to: '2026-10-18', name: 'Reading week' };
export const THURSDAY_TIMETABLE = {
  date: '2026-11-18',
  follows: 'thursday',
  name: 'Thursday timetable',
} as const;

/** A term as the tests plan in it: autumn in Halifax, with a week off and the end of summer time. */
export const autumn = (more: Partial<Term> = {}): Term => ({
  name: 'Autumn',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daysOff: [READING_WEEK],
  daySwaps: [],
  ...more,
});

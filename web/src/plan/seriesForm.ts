import type { MeetingPattern, PatternDay, SeriesInfo, SeriesInput, Weekday } from '@nimble-bell/core/api';
import { WEEKDAYS } from '@nimble-bell/core/calendar';

/** What the editor holds while it is typed: numbers may be empty. */
export interface SeriesForm {
  title: string;
  days: { day: Weekday; start: string; minutes: number | '' }[];
  every: number;
  lingerMinutes: number | '';
  endsBy: 'term' | 'date' | 'count';
  endDate: string;
  count: number | '';
  expected: number | '';
}

export const emptyForm = (): SeriesForm => ({
  title: 'Lecture',
  days: [],
  every: 1,
  lingerMinutes: 0,
  endsBy: 'term',
  endDate: '',
  count: '',
  expected: '',
});

export function formOf(series: SeriesInfo): SeriesForm {
  const { pattern } = series;
  return {
    ...emptyForm(),
    title: series.title,
    days: pattern.days,
    every: pattern.every,
    lingerMinutes: pattern.lingerMinutes,
    endsBy: pattern.ends.by,
    endDate: pattern.ends.by === 'date' ? pattern.ends.date : '',
    count: pattern.ends.by === 'count' ? pattern.ends.count : '',
  };
}

/** The form as the server takes it; what is missing is left for its schema to name. */
export function inputOf(form: SeriesForm, kept?: MeetingPattern): SeriesInput {
  const ends =
    form.endsBy === 'date'
      ? ({ by: 'date', date: form.endDate } as const)
      : form.endsBy === 'count'
        ? ({ by: 'count', count: Number(form.count) } as const)
        : ({ by: 'term' } as const);
  return {
    title: form.title,
    pattern: {
      kind: 'weekly',
      ...(kept?.firstDate ? { firstDate: kept.firstDate } : {}),
      every: form.every,
      days: form.days.map((d) => ({ ...d, minutes: Number(d.minutes) })) as PatternDay[],
      lingerMinutes: Number(form.lingerMinutes),
      ends,
    },
  };
}

/** Adds or removes a weekday; a new one takes the time of the one before it. */
export function toggleDay(days: SeriesForm['days'], day: Weekday): SeriesForm['days'] {
  if (days.some((d) => d.day === day)) return days.filter((d) => d.day !== day);
  const last = days.at(-1);
  const added = [...days, { day, start: last?.start ?? '18:30', minutes: last?.minutes ?? 80 }];
  return added.sort((a, b) => WEEKDAYS.indexOf(a.day) - WEEKDAYS.indexOf(b.day));
}

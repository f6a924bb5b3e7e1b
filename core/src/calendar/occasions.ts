import type { DatesPattern, MeetingPattern, MonthlyPattern } from './plan';
import { toEpochDay, toLocalDate, toMinutes, WEEKDAYS, weekdayOf, type EpochDay } from './localDate';
import { weekdayIndex } from './term';

/** A day on which a pattern that is not weekly would meet. */
export interface Occasion {
  day: EpochDay;
  startMinutes: number;
  minutes: number;
  /** The weekday whose timetable it belongs to, where a swap of days matters to it. */
  weekday?: number;
}

type Other = Exclude<MeetingPattern, { kind: 'weekly' }>;

/** Where a daily, monthly or listed pattern would meet from `from` to `to`, by date, days off not looked at. */
export function occasionsOf(pattern: Other, from: EpochDay, to: EpochDay): Occasion[] {
  if (pattern.kind === 'dates') return listed(pattern);
  const time = { startMinutes: toMinutes(pattern.start), minutes: pattern.minutes };
  const days = pattern.kind === 'daily' ? daily(from, to, pattern.every) : monthly(pattern, from, to);
  const weekday = pattern.kind === 'monthly' && pattern.onWeekday && weekdayIndex(pattern.onWeekday.day);
  return days.map((day) =>
    weekday === undefined || weekday === false ? { day, ...time } : { day, ...time, weekday },
  );
}

function listed(pattern: DatesPattern): Occasion[] {
  return pattern.dates
    .map((entry) => {
      const own = typeof entry === 'string' ? { date: entry } : entry;
      return {
        day: toEpochDay(own.date),
        startMinutes: toMinutes(own.start ?? pattern.start!),
        minutes: own.minutes ?? pattern.minutes!,
      };
    })
    .sort((a, b) => a.day - b.day);
}

function daily(from: EpochDay, to: EpochDay, every: number): EpochDay[] {
  const days: EpochDay[] = [];
  for (let day = from; day <= to; day += every) days.push(day);
  return days;
}

/** A month without that day (no 31st, no fifth Friday) is passed over, as RFC 5545 §3.3.10 does. */
function monthly(pattern: MonthlyPattern, from: EpochDay, to: EpochDay): EpochDay[] {
  const days: EpochDay[] = [];
  const start = toLocalDate(from);
  let year = +start.slice(0, 4);
  let month = +start.slice(5, 7) - 1;
  for (;;) {
    const first = Date.UTC(year, month, 1) / 86_400_000;
    if (first > to) return days;
    const next = Date.UTC(year, month + 1, 1) / 86_400_000;
    const day = dayInMonth(pattern, first, next);
    if (day !== null && day >= from && day <= to) days.push(day);
    month += pattern.every;
    year += Math.floor(month / 12);
    month %= 12;
  }
}

function dayInMonth(pattern: MonthlyPattern, first: EpochDay, next: EpochDay): EpochDay | null {
  let day: EpochDay;
  if (pattern.onWeekday) {
    const { nth, day: name } = pattern.onWeekday;
    const weekday = WEEKDAYS.indexOf(name);
    const early = first + ((weekday - weekdayOf(first) + 7) % 7);
    day = nth > 0 ? early + (nth - 1) * 7 : next - 1 - ((weekdayOf(next - 1) - weekday + 7) % 7);
  } else day = first + pattern.onDate! - 1;
  return day < next ? day : null;
}

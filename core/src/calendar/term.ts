import type { Term, Weekday } from './plan';
import { mondayOf, toEpochDay, WEEKDAYS, weekdayOf, type EpochDay } from './localDate';

/** A Monday-to-Sunday week of the term. A week whose Monday to Friday are all days off has no number. */
export interface TeachingWeek {
  monday: EpochDay;
  number: number | null;
  /** The name of the break, for a week without a number. */
  breakName?: string;
}

/** What a term says about each of its days, worked out once and asked often. */
export interface TermDays {
  first: EpochDay;
  last: EpochDay;
  weeks: TeachingWeek[];
  /** Index 0 is the term's first day: the weekday whose sessions take place (0 Monday), or -1 on a day off. */
  follows: Int8Array;
  /** The name of a day off or of a swap. */
  reasons: Map<EpochDay, string>;
}

export const weekdayIndex = (day: Weekday): number => WEEKDAYS.indexOf(day);

export function termDays(term: Term): TermDays {
  const first = toEpochDay(term.firstDay);
  const last = toEpochDay(term.lastDay);
  const follows = new Int8Array(last - first + 1);
  const reasons = new Map<EpochDay, string>();
  for (let day = first; day <= last; day++) follows[day - first] = weekdayOf(day);
  for (const swap of term.daySwaps) {
    const day = toEpochDay(swap.date);
    if (day < first || day > last) continue;
    follows[day - first] = weekdayIndex(swap.follows);
    reasons.set(day, swap.name);
  }
  for (const off of term.daysOff) {
    const to = Math.min(last, toEpochDay(off.to));
    for (let day = Math.max(first, toEpochDay(off.from)); day <= to; day++) {
      follows[day - first] = -1;
      reasons.set(day, off.name);
    }
  }
  return { first, last, follows, reasons, weeks: weeksOf(first, last, follows, reasons) };
}

function weeksOf(first: EpochDay, last: EpochDay, follows: Int8Array, reasons: Map<EpochDay, string>) {
  const weeks: TeachingWeek[] = [];
  let number = 0;
  for (let monday = mondayOf(first); monday <= last; monday += 7) {
    let teaches = false;
    for (let day = monday; day < monday + 5; day++)
      if (day >= first && day <= last && follows[day - first]! >= 0) teaches = true;
    if (teaches) weeks.push({ monday, number: ++number });
    else {
      const breakName = reasons.get(Math.max(monday, first));
      weeks.push(breakName ? { monday, number: null, breakName } : { monday, number: null });
    }
  }
  return weeks;
}

export function weekOf(days: TermDays, day: EpochDay): TeachingWeek | undefined {
  return days.weeks[Math.floor((day - mondayOf(days.first)) / 7)];
}

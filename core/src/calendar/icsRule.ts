import type { MeetingPattern } from './plan';
import { mondayOf, toEpochDay, toLocalDate, weekdayOf, type EpochDay } from './localDate';
import { occasionsOf } from './occasions';
import { weekdayIndex } from './term';

const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** A recurrence rule without its end, and the local dates it gives from the first to the last of the wanted ones. */
export interface Ruled {
  rule: string | null;
  dates: string[];
}

/**
 * The rule that says a pattern's dates with the fewest exceptions (RFC 5545 §3.3.10), or none where listing the dates
 * says them in fewer words. `wanted` is ascending and not empty; the rule starts on its first date.
 */
export function ruleFor(pattern: MeetingPattern, wanted: readonly string[]): Ruled {
  const first = toEpochDay(wanted[0]!);
  const last = toEpochDay(wanted.at(-1)!);
  const set = new Set(wanted);
  let best: Ruled = { rule: null, dates: [] };
  let least = wanted.length - 1;
  for (const candidate of candidates(pattern, first, last)) {
    if (candidate.dates[0] !== wanted[0]) continue;
    const hits = candidate.dates.filter((d) => set.has(d)).length;
    const exceptions = candidate.dates.length - hits + (wanted.length - hits);
    if (exceptions < least) [best, least] = [candidate, exceptions];
  }
  return best;
}

function candidates(pattern: MeetingPattern, first: EpochDay, last: EpochDay): Ruled[] {
  if (pattern.kind === 'dates') return [];
  if (pattern.kind === 'weekly') {
    const weekdays = pattern.days.map((d) => weekdayIndex(d.day)).sort();
    const intervals = pattern.every === 1 ? [1] : [1, pattern.every];
    return intervals.map((n) => weekly(weekdays, n, first, last));
  }
  const interval = pattern.every === 1 ? '' : `;INTERVAL=${pattern.every}`;
  const dates = occasionsOf(pattern, first, last).map((o) => toLocalDate(o.day));
  if (pattern.kind === 'daily') return [{ rule: `FREQ=DAILY${interval}`, dates }];
  const { onWeekday, onDate } = pattern;
  const by = onWeekday
    ? `BYDAY=${onWeekday.nth}${BYDAY[weekdayIndex(onWeekday.day)]}`
    : `BYMONTHDAY=${onDate}`;
  return [{ rule: `FREQ=MONTHLY${interval};${by}`, dates }];
}

function weekly(weekdays: number[], interval: number, first: EpochDay, last: EpochDay): Ruled {
  const dates: string[] = [];
  for (let day = first; day <= last; day++)
    if (weekdays.includes(weekdayOf(day)) && ((mondayOf(day) - mondayOf(first)) / 7) % interval === 0)
      dates.push(toLocalDate(day));
  const every = interval === 1 ? '' : `;INTERVAL=${interval};WKST=MO`;
  return { rule: `FREQ=WEEKLY${every};BYDAY=${weekdays.map((w) => BYDAY[w]).join(',')}`, dates };
}

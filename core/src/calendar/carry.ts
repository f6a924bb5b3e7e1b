import type { MeetingPattern, Period, Term } from './plan';
import { toEpochDay, toLocalDate, weekdayOf } from './localDate';
import { dateWords } from './words';
import { sessionsOf, type PlannedSession } from './sessions';
import { termDays, weekOf, type TermDays } from './term';

/** What becomes of one session when a plan is carried to another term. */
export interface Difference {
  /** `extra`: the new term gives a session that the old plan had not. */
  outcome: 'fits' | 'moved' | 'no place' | 'extra';
  /** In the old term. */
  was: { date: string; week: number | null } | null;
  /** In the new term: the same teaching week and weekday, or for a moved one the day that is proposed. */
  date: string | null;
  start: string;
  minutes: number;
  why: string | null;
}

export interface Carried {
  pattern: MeetingPattern;
  differences: Difference[];
}

/**
 * Carries a pattern to a new term by teaching week and weekday, and says session by session what fits, what falls on a
 * day off (with the next free day of that week), what has no place, and what the new term adds.
 */
export function carry(
  from: Term,
  to: Term,
  pattern: MeetingPattern,
  periods: readonly Period[] = [],
): Carried {
  const places = new Places(termDays(from), termDays(to));
  const old = sessionsOf(from, pattern, places.from, periods).sessions;
  const carried = carriedPattern(pattern, old, places);
  const fresh = new Map(sessionsOf(to, carried, places.to, periods).sessions.map((s) => [s.date, s]));
  const differences: Difference[] = [];
  for (const session of old) {
    const difference = places.differenceOf(session);
    if (difference.outcome === 'fits') fresh.delete(difference.date!);
    differences.push(difference);
  }
  for (const { date, start, minutes, week } of fresh.values())
    differences.push({
      outcome: 'extra',
      was: null,
      date,
      start,
      minutes,
      why: week === null ? 'A week without a number.' : `Week ${week} had no such session before.`,
    });
  return { pattern: carried, differences };
}

class Places {
  constructor(
    readonly from: TermDays,
    readonly to: TermDays,
  ) {}

  /** The day with the same teaching week and weekday, or null where the new term has none. */
  placeOf(date: string): number | null {
    const day = toEpochDay(date);
    const week = weekOf(this.from, day);
    const target = week?.number && this.to.weeks.find((w) => w.number === week.number);
    if (!target) return null;
    const place = target.monday + weekdayOf(day);
    return place >= this.to.first && place <= this.to.last ? place : null;
  }

  differenceOf(session: PlannedSession): Difference {
    const { date, start, minutes, week } = session;
    const base = { was: { date, week }, start, minutes };
    const place = this.placeOf(date);
    if (place === null) {
      const why =
        week === null
          ? 'It was in a week without a number.'
          : `The new term has no such day in week ${week}.`;
      return { ...base, outcome: 'no place', date: null, why };
    }
    const follows = this.to.follows[place - this.to.first]!;
    if (follows === weekdayOf(place))
      return { ...base, outcome: 'fits', date: toLocalDate(place), why: null };
    const why = `${dateWords(toLocalDate(place))} is ${this.to.reasons.get(place) ?? 'a day off'}.`;
    const free = this.#freeDayAfter(place);
    return free === null
      ? { ...base, outcome: 'no place', date: null, why }
      : { ...base, outcome: 'moved', date: toLocalDate(free), why };
  }

  /** The next day of the same week on which teaching takes place, or the nearest before it. */
  #freeDayAfter(place: number): number | null {
    const monday = place - weekdayOf(place);
    const later = [1, 2, 3, 4, 5, 6].map((i) => place + i).filter((d) => d < monday + 5);
    const earlier = [1, 2, 3, 4, 5, 6].map((i) => place - i).filter((d) => d >= monday);
    const teaches = (d: number) =>
      d >= this.to.first && d <= this.to.last && this.to.follows[d - this.to.first]! >= 0;
    return [...later, ...earlier].find(teaches) ?? null;
  }
}

function carriedPattern(pattern: MeetingPattern, old: PlannedSession[], places: Places): MeetingPattern {
  const { firstDate, ends, ...rest } = pattern;
  const first = firstDate ? places.placeOf(firstDate) : null;
  const base = {
    ...rest,
    ...(first === null ? {} : { firstDate: toLocalDate(first) }),
    ends,
  } as MeetingPattern;
  if (base.kind === 'dates') {
    const placed = old.flatMap((s) => {
      const place = places.placeOf(s.date);
      return place === null ? [] : [{ date: toLocalDate(place), start: s.start, minutes: s.minutes }];
    });
    // A list must hold a date: one that the term cannot place is shown as having no place.
    base.dates = placed.length
      ? placed
      : [{ date: toLocalDate(places.to.first), start: '12:00', minutes: 60 }];
    if (!placed.length) base.ends = { by: 'date', date: '1900-01-01' };
  }
  if (ends.by === 'date' && base.ends.by === 'date') {
    const end = places.placeOf(old.at(-1)?.date ?? ends.date);
    base.ends = end === null ? { by: 'term' } : { by: 'date', date: toLocalDate(end) };
  }
  return base;
}

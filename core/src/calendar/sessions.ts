import type { Ends, MeetingPattern, Period, Term, WeeklyPattern } from './plan';
import { timeOfDay, type TimeOfDay } from './bellTimes';
import {
  mondayOf,
  toClock,
  toEpochDay,
  toLocalDate,
  toMinutes,
  WEEKDAYS,
  weekdayOf,
  type EpochDay,
} from './localDate';
import { occasionsOf } from './occasions';
import { termDays, weekdayIndex, type TermDays } from './term';
import { toInstant, type Instant } from './zone';

export interface PlannedSession {
  /** Counts the sessions that take place, from 1. */
  number: number;
  /** Local date in the term's zone; with the series it is the session's key (RFC 5545 RECURRENCE-ID). */
  date: string;
  /** Local start, `HH:MM`. */
  start: string;
  minutes: number;
  startsAt: Instant;
  /** End of teaching; lingering is not in it. */
  endsAt: Instant;
  /** Teaching week, or null in a week without a number. */
  week: number | null;
}

export interface SkippedDate {
  date: string;
  reason: string;
}

/** Whether the same dates are skipped for the same reasons. */
export const sameSkips = (a: readonly SkippedDate[], b: readonly SkippedDate[]): boolean =>
  a.length === b.length && a.every((s, i) => s.date === b[i]!.date && s.reason === b[i]!.reason);

/** Whether both are on the same dates, whatever their times. */
export const sameDates = (a: readonly { date: string }[], b: readonly { date: string }[]): boolean =>
  a.length === b.length && a.every((s, i) => s.date === b[i]!.date);

export interface PlannedSeries {
  sessions: PlannedSession[];
  skipped: SkippedDate[];
  /** Teaching minutes in all. */
  minutes: number;
  /** Sessions asked for by count that the term has no room for. */
  missing: number;
  /** Minutes of the contact hours asked for that the term has no room for. */
  missingMinutes: number;
}

/**
 * The sessions of a pattern in a term, by date. Days off are skipped and named; on a swapped day the sessions of the
 * weekday it follows take place. A listed date outside the term is skipped too. A term given as `TermDays` saves
 * working its days out again; `periods` are the bell times that the pattern may speak of (one it does not find gives
 * no session: check with `periodFaults`).
 */
export function sessionsOf(
  term: Term,
  pattern: MeetingPattern,
  days: TermDays = termDays(term),
  periods: readonly Period[] = [],
): PlannedSeries {
  const from = Math.max(days.first, pattern.firstDate ? toEpochDay(pattern.firstDate) : days.first);
  const { ends } = pattern;
  const to = ends.by === 'date' ? Math.min(days.last, toEpochDay(ends.date)) : days.last;
  const lay = new Laying(term, days, ends);
  if (pattern.kind === 'weekly') layWeekly(lay, pattern, from, to, periods);
  else
    for (const { day, weekday, ...time } of occasionsOf(pattern, from, to)) {
      if (lay.full || (ends.by === 'date' && day > toEpochDay(ends.date))) break;
      if (day < days.first || day > days.last) lay.skip(day, 'Outside the term');
      else if (day < from) lay.skip(day, 'Before the first date');
      else {
        const follows = days.follows[day - days.first]!;
        if (follows < 0 || (weekday !== undefined && follows !== weekday))
          lay.skip(day, reasonFor(days, day, follows));
        else lay.add(day, time);
      }
    }
  return lay.result();
}

/** Gathers sessions until the series is full. */
class Laying {
  readonly #out: PlannedSeries = { sessions: [], skipped: [], minutes: 0, missing: 0, missingMinutes: 0 };
  readonly #count: number;
  readonly #minutes: number;
  readonly #firstMonday: EpochDay;

  constructor(
    readonly term: Term,
    readonly days: TermDays,
    ends: Ends,
  ) {
    this.#count = ends.by === 'count' ? ends.count : Infinity;
    this.#minutes = ends.by === 'hours' ? ends.hours * 60 : Infinity;
    this.#firstMonday = mondayOf(days.first);
  }

  get full(): boolean {
    return this.#out.sessions.length >= this.#count || this.#out.minutes >= this.#minutes;
  }

  skip(day: EpochDay, reason: string) {
    this.#out.skipped.push({ date: toLocalDate(day), reason });
  }

  add(day: EpochDay, time: TimeOfDay) {
    const startsAt = toInstant(this.term.zone, day, time.startMinutes);
    const week = this.days.weeks[Math.floor((day - this.#firstMonday) / 7)]!;
    this.#out.minutes += time.minutes;
    this.#out.sessions.push({
      number: this.#out.sessions.length + 1,
      date: toLocalDate(day),
      start: toClock(time.startMinutes),
      minutes: time.minutes,
      startsAt,
      endsAt: startsAt + time.minutes * 60_000,
      week: week.number,
    });
  }

  result(): PlannedSeries {
    const out = this.#out;
    if (this.#count < Infinity) out.missing = this.#count - out.sessions.length;
    if (this.#minutes < Infinity) out.missingMinutes = Math.max(0, Math.ceil(this.#minutes - out.minutes));
    return out;
  }
}

function layWeekly(
  lay: Laying,
  pattern: WeeklyPattern,
  from: EpochDay,
  to: EpochDay,
  periods: readonly Period[],
) {
  const { days } = lay;
  const slots: (TimeOfDay | undefined)[] = new Array(7).fill(undefined);
  for (const d of pattern.days) {
    const time = timeOfDay(d, periods);
    if (typeof time !== 'string') slots[weekdayIndex(d.day)] = time;
  }
  const isTurn = turnsOf(days, pattern, from);
  for (let day = from; day <= to && !lay.full; day++) {
    const follows = days.follows[day - days.first]!;
    const slot = follows < 0 ? undefined : slots[follows];
    if (!slot && !slots[weekdayOf(day)]) continue;
    if (!isTurn(day)) continue;
    if (slot) lay.add(day, slot);
    else lay.skip(day, reasonFor(days, day, follows));
  }
}

function reasonFor(days: TermDays, day: EpochDay, follows: number): string {
  const name = days.reasons.get(day) ?? 'Day off';
  if (follows < 0) return name;
  // A day that is called by the weekday it follows says so already.
  const weekday = WEEKDAYS[follows]!;
  return name.toLowerCase().includes(weekday) ? name : `${name}: follows ${capitalised(weekday)}`;
}

const capitalised = (text: string) => text[0]!.toUpperCase() + text.slice(1);

/**
 * Whether the week of a day is one in which the pattern meets, counted from the week of its first date. Teaching weeks
 * count by their number, so a break uses up no turn; calendar weeks count break or not.
 */
function turnsOf(days: TermDays, pattern: WeeklyPattern, from: EpochDay): (day: EpochDay) => boolean {
  const { every } = pattern;
  if (every === 1) return () => true;
  if (pattern.weeks === 'calendar') {
    const first = mondayOf(from);
    return (day) => ((mondayOf(day) - first) / 7) % every === 0;
  }
  const firstMonday = mondayOf(days.first);
  const indexOf = (day: EpochDay) => Math.floor((day - firstMonday) / 7);
  let index = indexOf(from);
  while (index < days.weeks.length && days.weeks[index]!.number === null) index++;
  const first = days.weeks[index]?.number ?? 1;
  return (day) => {
    const { number } = days.weeks[indexOf(day)]!;
    return number !== null && (number - first) % every === 0;
  };
}

/** Local end of teaching, `HH:MM`. */
export const endClock = (session: Pick<PlannedSession, 'start' | 'minutes'>): string =>
  toClock(toMinutes(session.start) + session.minutes);

import type { MeetingPattern, Term } from '../api/plan';
import { mondayOf, toClock, toEpochDay, toLocalDate, toMinutes, weekdayOf, type EpochDay } from './localDate';
import { termDays, weekdayIndex, WEEKDAYS, type TermDays } from './term';
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

export interface PlannedSeries {
  sessions: PlannedSession[];
  skipped: SkippedDate[];
  /** Teaching minutes in all. */
  minutes: number;
  /** Sessions asked for by count that the term has no room for. */
  missing: number;
}

interface Slot {
  start: string;
  startMinutes: number;
  minutes: number;
}

/**
 * The sessions of a pattern in a term, by date. Days off are skipped and named; on a swapped day the sessions of the
 * weekday it follows take place. A term given as `TermDays` saves working its days out again.
 */
export function sessionsOf(
  term: Term,
  pattern: MeetingPattern,
  days: TermDays = termDays(term),
): PlannedSeries {
  const slots: (Slot | undefined)[] = new Array(7).fill(undefined);
  for (const d of pattern.days)
    slots[weekdayIndex(d.day)] = { start: d.start, startMinutes: toMinutes(d.start), minutes: d.minutes };

  const from = Math.max(days.first, pattern.firstDate ? toEpochDay(pattern.firstDate) : days.first);
  const ends = pattern.ends;
  const to = ends.by === 'date' ? Math.min(days.last, toEpochDay(ends.date)) : days.last;
  const limit = ends.by === 'count' ? ends.count : Infinity;
  const firstTurn = turnOf(days, from);

  const result: PlannedSeries = { sessions: [], skipped: [], minutes: 0, missing: 0 };
  for (let day = from; day <= to && result.sessions.length < limit; day++) {
    const follows = days.follows[day - days.first]!;
    const slot = follows < 0 ? undefined : slots[follows];
    const ownSlot = slots[weekdayOf(day)];
    if (!slot && !ownSlot) continue;
    if (pattern.every > 1 && !isTurn(days, day, firstTurn, pattern.every)) continue;
    if (slot) result.sessions.push(sessionOn(term, days, day, slot, result.sessions.length + 1));
    else result.skipped.push({ date: toLocalDate(day), reason: reasonFor(days, day, follows) });
    if (slot) result.minutes += slot.minutes;
  }
  if (ends.by === 'count') result.missing = limit - result.sessions.length;
  return result;
}

function sessionOn(term: Term, days: TermDays, day: EpochDay, slot: Slot, number: number): PlannedSession {
  const startsAt = toInstant(term.zone, day, slot.startMinutes);
  const week = days.weeks[Math.floor((day - mondayOf(days.first)) / 7)]!;
  return {
    number,
    date: toLocalDate(day),
    start: slot.start,
    minutes: slot.minutes,
    startsAt,
    endsAt: startsAt + slot.minutes * 60_000,
    week: week.number,
  };
}

function reasonFor(days: TermDays, day: EpochDay, follows: number): string {
  const name = days.reasons.get(day) ?? 'Day off';
  return follows < 0 ? name : `${name}: follows ${capitalised(WEEKDAYS[follows]!)}`;
}

const capitalised = (text: string) => text[0]!.toUpperCase() + text.slice(1);

/** The teaching week's number decides a turn; a break has the number of the week before it, and uses up no turn. */
function turnOf(days: TermDays, day: EpochDay): number {
  let index = Math.floor((day - mondayOf(days.first)) / 7);
  while (index < days.weeks.length && days.weeks[index]!.number === null) index++;
  return days.weeks[index]?.number ?? 1;
}

function isTurn(days: TermDays, day: EpochDay, firstTurn: number, every: number): boolean {
  const week = days.weeks[Math.floor((day - mondayOf(days.first)) / 7)]!;
  return week.number !== null && (week.number - firstTurn) % every === 0;
}

/** Local end of teaching, `HH:MM`. */
export const endClock = (session: Pick<PlannedSession, 'start' | 'minutes'>): string =>
  toClock(toMinutes(session.start) + session.minutes);

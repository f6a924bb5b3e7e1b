import { z } from 'zod';
import { line } from '../text';
import { toEpochDay, toMinutes, weekdayOf } from './localDate';
import type { LaidSession, Own } from './lay';
import { ClockTime, LocalDate } from './plan';
import { Minutes, SessionTitle } from './series';
import { toInstant, toWall, type Instant } from './zone';

/** Why sessions are cancelled: told to those who were to come. */
export const CancelReason = line('Say why, or leave it empty.', 200);

/** What is done to a session, or to several. */
export const SessionChange = z.discriminatedUnion('do', [
  z.object({ do: z.literal('move'), date: LocalDate, start: ClockTime }),
  z.object({ do: z.literal('cancel'), reason: CancelReason.nullish() }),
  z.object({ do: z.literal('restore') }),
  z.object({ do: z.literal('lengthen'), minutes: Minutes }),
  z.object({ do: z.literal('rename'), title: SessionTitle.nullable() }),
  /** Whether it is recorded by itself; null is what the course's recording plan says. */
  z.object({ do: z.literal('record'), automatic: z.boolean().nullable() }),
]);
export type SessionChange = z.infer<typeof SessionChange>;

export const Scope = z.enum(['one', 'later', 'all']);
export type Scope = z.infer<typeof Scope>;

/**
 * The sessions that a change touches, as they become. What was held, is live or is over stays as it is. Moved with
 * others, sessions of the same weekday and time keep their distance: "this Tuesday to Wednesday" moves the later
 * Tuesdays to their Wednesdays.
 */
export function changed(
  series: readonly LaidSession[],
  id: string,
  scope: Scope,
  change: SessionChange,
  zone: string,
  now: Instant,
): LaidSession[] {
  const target = series.find((s) => s.id === id);
  if (!target) return [];
  const within = series.filter((s) => {
    if (s.id === id) return s.state !== 'held' && s.state !== 'live';
    if (scope === 'one' || s.state === 'held' || s.state === 'live' || s.endsAt <= now) return false;
    if (scope === 'later' && s.startsAt < target.startsAt) return false;
    return change.do !== 'move' || sameSlot(s, target, zone);
  });
  return within
    .map((s) => apply(s, change, target, zone))
    .filter((after, i) => JSON.stringify(after) !== JSON.stringify(within[i]));
}

/** The sessions ahead that begin on these days, the first and the last among them, as cancelled. */
export function cancelledBetween(
  series: readonly LaidSession[],
  { from, to, reason }: { from: string; to: string; reason: string | null },
  zone: string,
  now: Instant,
): LaidSession[] {
  const [first, last] = [toEpochDay(from), toEpochDay(to)];
  return series
    .filter((s) => (s.state === 'planned' || s.state === 'moved') && s.endsAt > now)
    .filter((s) => {
      const { day } = toWall(zone, s.startsAt);
      return day >= first && day <= last;
    })
    .map((s) => ({ ...s, state: 'cancelled', reason }));
}

function sameSlot(a: LaidSession, b: LaidSession, zone: string): boolean {
  const [x, y] = [toWall(zone, a.startsAt), toWall(zone, b.startsAt)];
  return weekdayOf(x.day) === weekdayOf(y.day) && x.minutes === y.minutes;
}

const withOwn = (s: LaidSession, ...own: Own[]) => [...new Set([...s.own, ...own])].sort();

function apply(s: LaidSession, change: SessionChange, target: LaidSession, zone: string): LaidSession {
  switch (change.do) {
    case 'move': {
      const shift = toEpochDay(change.date) - toWall(zone, target.startsAt).day;
      const startsAt = toInstant(zone, toWall(zone, s.startsAt).day + shift, toMinutes(change.start));
      if (startsAt === s.startsAt) return s;
      const state = s.state === 'cancelled' ? 'cancelled' : 'moved';
      return { ...s, startsAt, endsAt: startsAt + (s.endsAt - s.startsAt), state, own: withOwn(s, 'time') };
    }
    case 'cancel':
      return { ...s, state: 'cancelled', reason: change.reason ?? null };
    case 'restore':
      if (s.state !== 'cancelled') return s;
      return { ...s, state: s.own.includes('time') ? 'moved' : 'planned', reason: null };
    case 'lengthen': {
      const endsAt = s.startsAt + change.minutes * 60_000;
      return endsAt === s.endsAt ? s : { ...s, endsAt, own: withOwn(s, 'length') };
    }
    case 'record':
      return { ...s, record: change.automatic };
    case 'rename':
      return {
        ...s,
        title: change.title,
        own: change.title ? withOwn(s, 'title') : s.own.filter((o) => o !== 'title'),
      };
  }
}

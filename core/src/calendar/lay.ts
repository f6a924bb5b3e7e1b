import { mondayOf, toEpochDay } from './localDate';
import type { PlannedSession } from './sessions';
import type { Instant } from './zone';

/** What a session may have of its own, against its pattern. */
export type Own = 'time' | 'length' | 'title' | 'added';

/** A session as it is kept. */
export interface LaidSession {
  id: string;
  /** Original local date: with the series, its key. */
  date: string;
  number: number;
  startsAt: Instant;
  endsAt: Instant;
  lingerMinutes: number;
  state: 'planned' | 'moved' | 'cancelled' | 'live' | 'held';
  title: string | null;
  own: readonly Own[];
  /** The lost session that this one makes up for. */
  replaces: string | null;
  /** Whether it is recorded by itself; null is what the course's recording plan says. */
  record: boolean | null;
  /** Why it is cancelled, where that was said. */
  reason?: string | null;
}

/** New rows have no id yet. */
export type NewSession = Omit<LaidSession, 'id'>;

export interface Laid {
  kept: LaidSession[];
  added: NewSession[];
  removed: LaidSession[];
}

/**
 * A series laid anew over the sessions it has. A date that stays keeps its session and all it has of its own; a session
 * whose date goes takes the place of a new date of the same week, in order, and keeps what it had; what was held, is
 * live or was added by hand stays; so does everything before `frozenUntil`, where the plan is history.
 */
export function lay(
  existing: readonly LaidSession[],
  planned: readonly PlannedSession[],
  lingerMinutes: number,
  frozenUntil: Instant | null,
): Laid {
  const fixed = existing.filter((s) => isFixed(s, frozenUntil));
  // One added by hand stands beside what the pattern gives on its date.
  const fixedDates = new Set(fixed.filter((s) => !s.own.includes('added')).map((s) => s.date));
  const loose = existing.filter((s) => !isFixed(s, frozenUntil));
  const open = planned.filter(
    (p) => !fixedDates.has(p.date) && (frozenUntil === null || p.endsAt > frozenUntil),
  );
  const byDate = new Map(open.map((p) => [p.date, p]));
  const pairs: [LaidSession, PlannedSession][] = [];
  const left: LaidSession[] = [];
  for (const session of loose) {
    const same = byDate.get(session.date);
    if (!same) left.push(session);
    else {
      byDate.delete(session.date);
      pairs.push([session, same]);
    }
  }
  const homeless: LaidSession[] = [];
  for (const session of left) {
    const near = [...byDate.values()].find((p) => weekOfDate(p.date) === weekOfDate(session.date));
    if (!near) homeless.push(session);
    else {
      byDate.delete(near.date);
      pairs.push([session, near]);
    }
  }
  const stays = homeless.filter((s) => s.state === 'moved' || s.state === 'cancelled');
  const kept = [...fixed, ...stays, ...pairs.map(([s, p]) => settled(s, p, lingerMinutes))];
  const added = [...byDate.values()].map((p) => fresh(p, lingerMinutes));
  return { ...numbered(kept, added), removed: homeless.filter((s) => !stays.includes(s)) };
}

const weekOfDate = (date: string) => mondayOf(toEpochDay(date));

const isFixed = (s: LaidSession, frozenUntil: Instant | null) =>
  s.state === 'held' ||
  s.state === 'live' ||
  s.own.includes('added') ||
  (frozenUntil !== null && s.endsAt <= frozenUntil);

function settled(session: LaidSession, plan: PlannedSession, lingerMinutes: number): LaidSession {
  const startsAt = session.own.includes('time') ? session.startsAt : plan.startsAt;
  const length = session.own.includes('length') ? session.endsAt - session.startsAt : plan.minutes * 60_000;
  return { ...session, date: plan.date, startsAt, endsAt: startsAt + length, lingerMinutes };
}

const fresh = (plan: PlannedSession, lingerMinutes: number): NewSession => ({
  date: plan.date,
  number: plan.number,
  startsAt: plan.startsAt,
  endsAt: plan.endsAt,
  lingerMinutes,
  state: 'planned',
  title: null,
  own: [],
  replaces: null,
  record: null,
});

/** Numbers follow the dates; on one date, the times. */
export function numbersOf<T extends { date: string; startsAt: Instant }>(
  sessions: readonly T[],
): Map<T, number> {
  const order = [...sessions].sort((a, b) =>
    a.date === b.date ? a.startsAt - b.startsAt : a.date < b.date ? -1 : 1,
  );
  return new Map(order.map((s, i) => [s, i + 1]));
}

function numbered(kept: LaidSession[], added: NewSession[]): Pick<Laid, 'kept' | 'added'> {
  const numbers = numbersOf<NewSession>([...kept, ...added]);
  const withNumber = <T extends NewSession>(s: T): T => ({ ...s, number: numbers.get(s)! });
  return { kept: kept.map(withNumber), added: added.map(withNumber) };
}

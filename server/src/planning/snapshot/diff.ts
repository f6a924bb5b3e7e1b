import type { Db } from '../../db/pool';
import {
  deleteSessions,
  moveFromGroup,
  removeSeries,
  writeSeries,
  writeSession,
  type SeriesRecord,
  type SessionRecord,
  type Snapshot,
} from './store';

/** One row before and after: null where it was not there. */
export interface RowChange<T> {
  before: T | null;
  after: T | null;
}

/** What differs between two snapshots: enough to show it, and to go back. */
export interface PlanDiff {
  series: RowChange<SeriesRecord>[];
  sessions: RowChange<SessionRecord>[];
  groups: { member: string; before: string | null; after: string | null }[];
}

/** A value as text that does not depend on the order in which its keys were written. */
const canonical = (value: unknown): string =>
  JSON.stringify(value, (_key, v: unknown) =>
    v !== null && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
const same = (a: unknown, b: unknown) => canonical(a) === canonical(b);

function changesOf<T>(before: Map<string, T>, after: Map<string, T>): RowChange<T>[] {
  const ids = new Set([...before.keys(), ...after.keys()]);
  return [...ids]
    .map((id) => ({ before: before.get(id) ?? null, after: after.get(id) ?? null }))
    .filter((c) => !same(c.before, c.after));
}

/** A session that was rung in or dismissed meanwhile was not changed by it: classes go on while a plan is written. */
function withoutRinging({ before, after }: RowChange<SessionRecord>): RowChange<SessionRecord> {
  const rung = before && after && (after.state === 'live' || after.state === 'held');
  return rung ? { before: { ...before, state: after.state }, after } : { before, after };
}

export const diffOf = (before: Snapshot, after: Snapshot): PlanDiff => ({
  series: changesOf(before.series, after.series),
  sessions: changesOf(before.sessions, after.sessions)
    .map(withoutRinging)
    .filter((c) => !same(c.before, c.after)),
  groups: [...after.groups]
    .map(([member, group]) => ({ member, before: before.groups.get(member) ?? null, after: group }))
    .filter((g) => g.before !== g.after),
});

export const isEmpty = (diff: PlanDiff) =>
  !diff.series.length && !diff.sessions.length && !diff.groups.length;

export const reversed = (diff: PlanDiff): PlanDiff => ({
  series: diff.series.map(({ before, after }) => ({ before: after, after: before })),
  sessions: diff.sessions.map(({ before, after }) => ({ before: after, after: before })),
  groups: diff.groups.map(({ member, before, after }) => ({ member, before: after, after: before })),
});

const fieldsOf = <T extends { rest?: unknown }>({ rest, ...fields }: T) => fields;
const isRung = (s: SessionRecord) => s.state === 'live' || s.state === 'held';

/** What writing a row over one that was rung in leaves as it is. */
const TIMES = ['date', 'take', 'startsAt', 'endsAt', 'state'] as const;

/** Whether nothing is left of a change to take back: everything stands as it was before it, or has been taught since. */
export function isSpent(diff: PlanDiff, now: Snapshot): boolean {
  const gone = <T extends { rest?: unknown }>({ before }: RowChange<T>, standing: T | undefined) =>
    before ? standing !== undefined && same(fieldsOf(before), fieldsOf(standing)) : standing === undefined;
  const sessionGone = (change: RowChange<SessionRecord>) => {
    const standing = now.sessions.get((change.after ?? change.before)!.id);
    if (!standing || !isRung(standing)) return gone(change, standing);
    if (!change.before) return true;
    const before = { ...change.before };
    for (const field of TIMES) Object.assign(before, { [field]: standing[field] });
    return gone({ ...change, before }, standing);
  };
  return (
    diff.series.every((c) => gone(c, now.series.get((c.after ?? c.before)!.id))) &&
    diff.sessions.every(sessionGone) &&
    diff.groups.every((g) => now.groups.get(g.member) !== g.after)
  );
}

/** Writes the `after` of every row of a diff. What has been rung in since is left alone. */
export async function applyDiff(db: Db, course: string, diff: PlanDiff) {
  for (const { after } of diff.series) if (after) await writeSeries(db, course, after);
  for (const { before, after } of diff.sessions) {
    if (after) await writeSession(db, course, after);
    else if (before) await deleteSessions(db, 'id = ?', [before.id]);
  }
  for (const { before, after } of diff.series) if (before && !after) await removeSeries(db, before.id);
  for (const { member, before, after } of diff.groups) await moveFromGroup(db, before, after, member);
}

import type { Own } from '@nimble-bell/core/calendar';
import { json, rows, run, type Db } from '../db/pool';

/** A series as its row, JSON columns as values. */
export interface SeriesRecord {
  id: string;
  title: string;
  kind: string;
  pattern: unknown;
  group: string | null;
  expected: number | null;
  leads: string[];
  publishedAt: number | null;
}

/** A session as its row. */
export interface SessionRecord {
  id: string;
  seriesId: string;
  date: string;
  take: number;
  number: number;
  startsAt: number;
  endsAt: number;
  lingerMinutes: number;
  state: 'planned' | 'moved' | 'cancelled' | 'live' | 'held';
  title: string | null;
  own: Own[];
  replaces: string | null;
  record: boolean | null;
}

/** All that a plan is: series, sessions, and who is in which group. */
export interface Snapshot {
  series: Map<string, SeriesRecord>;
  sessions: Map<string, SessionRecord>;
  groups: Map<string, string | null>;
}

/** A course's plan as it stands, its rows locked until the transaction ends. */
export async function snapshot(db: Db, course: string): Promise<Snapshot> {
  const series = await rows<SeriesRecord & { leads: unknown }>(
    db,
    `SELECT id, title, kind, pattern, group_name AS \`group\`, expected, leads, published_at AS publishedAt
       FROM series WHERE course_id = ? FOR UPDATE`,
    [course],
  );
  const sessions = await rows<Omit<SessionRecord, 'own' | 'record'> & { own: string; record: number | null }>(
    db,
    `SELECT id, series_id AS seriesId, local_date AS date, take, number, starts_at AS startsAt, ends_at AS endsAt,
            linger_minutes AS lingerMinutes, state, title, own, replaces, record
       FROM sessions WHERE course_id = ? FOR UPDATE`,
    [course],
  );
  const members = await rows<{ id: string; group: string | null }>(
    db,
    'SELECT id, group_name AS `group` FROM members WHERE course_id = ? FOR UPDATE',
    [course],
  );
  return {
    series: new Map(
      series.map((s) => [
        s.id,
        { ...s, pattern: s.pattern === null ? null : json(s.pattern), leads: json<string[]>(s.leads) },
      ]),
    ),
    sessions: new Map(sessions.map((s) => [s.id, readRecord(s)])),
    groups: new Map(members.map((m) => [m.id, m.group])),
  };
}

const readRecord = (
  s: Omit<SessionRecord, 'own' | 'record'> & { own: string; record: number | null },
): SessionRecord => ({
  ...s,
  own: s.own ? (s.own.split(',') as Own[]) : [],
  record: s.record === null ? null : Boolean(s.record),
});

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

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

function changesOf<T>(before: Map<string, T>, after: Map<string, T>): RowChange<T>[] {
  const ids = new Set([...before.keys(), ...after.keys()]);
  return [...ids]
    .map((id) => ({ before: before.get(id) ?? null, after: after.get(id) ?? null }))
    .filter((c) => !same(c.before, c.after));
}

export const diffOf = (before: Snapshot, after: Snapshot): PlanDiff => ({
  series: changesOf(before.series, after.series),
  sessions: changesOf(before.sessions, after.sessions),
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

/** Takes sessions away that were never rung in. What was said at their doors, who came and went, goes with them. */
export async function deleteSessions(db: Db, where: string, values: readonly (string | number | string[])[]) {
  const which = `${where} AND state NOT IN ('live', 'held')`;
  await run(
    db,
    `DELETE FROM room_events WHERE session_id IN (SELECT id FROM sessions WHERE ${which})`,
    values,
  );
  await run(db, `DELETE FROM sessions WHERE ${which}`, values);
}

/** Writes the `after` of every row of a diff. What has been rung in since is left alone. */
export async function applyDiff(db: Db, course: string, diff: PlanDiff) {
  for (const { after } of diff.series) if (after) await writeSeries(db, course, after);
  for (const { before, after } of diff.sessions) {
    if (after) await writeSession(db, course, after);
    else if (before) await deleteSessions(db, 'id = ?', [before.id]);
  }
  for (const { before, after } of diff.series) if (before && !after) await removeSeries(db, before.id);
  for (const { member, after } of diff.groups)
    await run(db, 'UPDATE members SET group_name = ? WHERE id = ?', [after, member]);
}

export const removeSeries = async (db: Db, id: string) => {
  await deleteSessions(db, 'series_id = ?', [id]);
  await run(
    db,
    'DELETE FROM series WHERE id = ? AND NOT EXISTS (SELECT 1 FROM sessions WHERE series_id = ?)',
    [id, id],
  );
};

export const writeSeries = (db: Db, course: string, s: SeriesRecord) =>
  run(
    db,
    `INSERT INTO series (id, course_id, title, kind, pattern, group_name, expected, leads, published_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE title = VALUES(title), kind = VALUES(kind), pattern = VALUES(pattern),
       group_name = VALUES(group_name), expected = VALUES(expected), leads = VALUES(leads),
       published_at = VALUES(published_at)`,
    [
      s.id,
      course,
      s.title,
      s.kind,
      s.pattern === null ? null : JSON.stringify(s.pattern),
      s.group,
      s.expected,
      JSON.stringify(s.leads),
      s.publishedAt,
    ],
  );

const SESSION_COLUMNS = `(id, series_id, course_id, local_date, take, number, starts_at, ends_at, linger_minutes, state, title, own, replaces, record)`;
const valuesOf = (course: string, s: SessionRecord) => [
  s.id,
  s.seriesId,
  course,
  s.date,
  s.take,
  s.number,
  s.startsAt,
  s.endsAt,
  s.lingerMinutes,
  s.state,
  s.title,
  s.own.join(','),
  s.replaces,
  s.record,
];

/** A session that is live or held keeps its times and state, whatever is written. */
export const writeSession = (db: Db, course: string, s: SessionRecord) =>
  run(
    db,
    `INSERT INTO sessions ${SESSION_COLUMNS} VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE
       local_date = IF(state IN ('live', 'held'), local_date, VALUES(local_date)),
       take = IF(state IN ('live', 'held'), take, VALUES(take)),
       starts_at = IF(state IN ('live', 'held'), starts_at, VALUES(starts_at)),
       ends_at = IF(state IN ('live', 'held'), ends_at, VALUES(ends_at)),
       linger_minutes = VALUES(linger_minutes), title = VALUES(title), own = VALUES(own), number = VALUES(number),
       replaces = VALUES(replaces), record = VALUES(record),
       state = IF(state IN ('live', 'held'), state, VALUES(state))`,
    valuesOf(course, s),
  );

/** Many new sessions at once. */
export async function insertSessions(db: Db, course: string, sessions: readonly SessionRecord[]) {
  if (sessions.length)
    await run(db, `INSERT INTO sessions ${SESSION_COLUMNS} VALUES ?`, [
      sessions.map((s) => valuesOf(course, s)),
    ]);
}

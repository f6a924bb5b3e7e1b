import type { Own } from '@nimble-bell/core/calendar';
import { json, rows, run, type Db } from '../../db/pool';

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
  /** Its other columns, whatever they are: only for whoever puts it back. */
  rest?: Rest;
}

type Rest = Record<string, unknown>;

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
  reason?: string | null;
  /** Its other columns, whatever they are: only for whoever puts it back. */
  rest?: Rest;
}

/** All that a plan is: series, sessions, and who is in which group. */
export interface Snapshot {
  series: Map<string, SeriesRecord>;
  sessions: Map<string, SessionRecord>;
  groups: Map<string, string | null>;
}

interface RawRecord {
  id: string;
  series_id: string;
  course_id: string;
  local_date: string;
  take: number;
  number: number;
  starts_at: number;
  ends_at: number;
  linger_minutes: number;
  state: SessionRecord['state'];
  title: string | null;
  own: string;
  replaces: string | null;
  record: number | null;
  reason: string | null;
}

function readRecord(row: RawRecord): SessionRecord {
  const { id, series_id, course_id, local_date, take, number, starts_at, ends_at, ...more } = row;
  const { linger_minutes, state, title, own, replaces, record, reason, ...rest } = more;
  return {
    id,
    seriesId: series_id,
    date: local_date,
    take,
    number,
    startsAt: starts_at,
    endsAt: ends_at,
    lingerMinutes: linger_minutes,
    state,
    title,
    own: own ? (own.split(',') as Own[]) : [],
    replaces,
    record: record === null ? null : Boolean(record),
    reason,
    rest,
  };
}

interface RawSeries {
  id: string;
  course_id: string;
  title: string;
  kind: string;
  pattern: unknown;
  group_name: string | null;
  expected: number | null;
  leads: unknown;
  published_at: number | null;
}

function readSeriesRecord(row: RawSeries): SeriesRecord {
  const { id, course_id, title, kind, pattern, group_name, expected, leads, published_at, ...rest } = row;
  return {
    id,
    title,
    kind,
    pattern: pattern === null ? null : json(pattern),
    group: group_name,
    expected,
    leads: json<string[]>(leads),
    publishedAt: published_at,
    rest,
  };
}

/** A course's plan as it stands. Whoever changes it has the course's turn. */
export const snapshot = async (db: Db, course: string): Promise<Snapshot> =>
  (await snapshots(db, [course])).get(course)!;

/** The plans of several courses, by course: as many questions as for one. */
export async function snapshots(db: Db, courses: readonly string[]): Promise<Map<string, Snapshot>> {
  const ids = [...courses];
  const series = await rows<RawSeries>(db, 'SELECT * FROM series WHERE course_id IN (?)', [ids]);
  const sessions = await rows<RawRecord>(db, 'SELECT * FROM sessions WHERE course_id IN (?)', [ids]);
  const members = await rows<{ id: string; course: string; group: string | null }>(
    db,
    'SELECT id, course_id AS course, group_name AS `group` FROM members WHERE course_id IN (?)',
    [ids],
  );
  const found = new Map<string, Snapshot>(
    ids.map((id) => [id, { series: new Map(), sessions: new Map(), groups: new Map() }]),
  );
  for (const row of series) found.get(row.course_id)!.series.set(row.id, readSeriesRecord(row));
  for (const row of sessions) found.get(row.course_id)!.sessions.set(row.id, readRecord(row));
  for (const m of members) found.get(m.course)!.groups.set(m.id, m.group);
  return found;
}

/** A series' sessions by date. */
export async function sessionRecords(db: Db, series: string): Promise<SessionRecord[]> {
  const found = await rows<RawRecord>(
    db,
    'SELECT * FROM sessions WHERE series_id = ? ORDER BY local_date, take',
    [series],
  );
  return found.map(readRecord);
}

/** Columns and values of a row, those of `rest` among them where the row is put back. */
const columnsOf = (columns: Rest) => ({
  names: `(${Object.keys(columns)
    .map((name) => `\`${name}\``)
    .join(', ')})`,
  // The driver hands JSON columns over as values.
  values: Object.values(columns).map((v) =>
    v !== null && typeof v === 'object' ? JSON.stringify(v) : (v as string | number | null),
  ),
});

/** Written over one that is there, a series keeps its other columns; put back, it has those it had. */
export function writeSeries(db: Db, course: string, s: SeriesRecord) {
  const { names, values } = columnsOf({
    ...s.rest,
    id: s.id,
    course_id: course,
    title: s.title,
    kind: s.kind,
    pattern: s.pattern === null ? null : JSON.stringify(s.pattern),
    group_name: s.group,
    expected: s.expected,
    leads: JSON.stringify(s.leads),
    published_at: s.publishedAt,
  });
  return run(
    db,
    `INSERT INTO series ${names} VALUES (?)
     ON DUPLICATE KEY UPDATE title = VALUES(title), kind = VALUES(kind), pattern = VALUES(pattern),
       group_name = VALUES(group_name), expected = VALUES(expected), leads = VALUES(leads),
       published_at = VALUES(published_at)`,
    [values],
  );
}

const sessionColumns = (course: string, s: SessionRecord) =>
  columnsOf({
    ...s.rest,
    id: s.id,
    series_id: s.seriesId,
    course_id: course,
    local_date: s.date,
    take: s.take,
    number: s.number,
    starts_at: s.startsAt,
    ends_at: s.endsAt,
    linger_minutes: s.lingerMinutes,
    state: s.state,
    title: s.title,
    own: s.own.join(','),
    replaces: s.replaces,
    record: s.record === null ? null : Number(s.record),
    reason: s.reason ?? null,
  });

/**
 * A session that is live or held keeps its times and state, whatever is written. Written over one that is there, it keeps
 * its other columns; put back, it has those it had.
 */
export const writeSession = (db: Db, course: string, s: SessionRecord) => writeSessions(db, course, [s]);

/** Several, in one statement: those that change dates are out of one another's way already. */
export const writeSessions = (db: Db, course: string, sessions: readonly SessionRecord[]) =>
  writeOwned(
    db,
    sessions.map((record) => ({ course, record })),
  );

/** A session with the course it is of. */
export interface OwnedRecord {
  course: string;
  record: SessionRecord;
}

export async function writeOwned(db: Db, sessions: readonly OwnedRecord[]) {
  const alike = new Map<string, unknown[][]>();
  for (const { course, record } of sessions) {
    const { names, values } = sessionColumns(course, record);
    alike.set(names, [...(alike.get(names) ?? []), values]);
  }
  for (const [names, all] of alike)
    await run(
      db,
      `INSERT INTO sessions ${names} VALUES ?
     ON DUPLICATE KEY UPDATE
       local_date = IF(state IN ('live', 'held'), local_date, VALUES(local_date)),
       take = IF(state IN ('live', 'held'), take, VALUES(take)),
       starts_at = IF(state IN ('live', 'held'), starts_at, VALUES(starts_at)),
       ends_at = IF(state IN ('live', 'held'), ends_at, VALUES(ends_at)),
       linger_minutes = VALUES(linger_minutes), title = VALUES(title), own = VALUES(own), number = VALUES(number),
       replaces = VALUES(replaces), record = VALUES(record), reason = VALUES(reason),
       state = IF(state IN ('live', 'held'), state, VALUES(state))`,
      [all],
    );
}

/** Many new sessions at once. */
export const insertSessions = (db: Db, course: string, sessions: readonly SessionRecord[]) =>
  insertOwned(
    db,
    sessions.map((record) => ({ course, record })),
  );

export async function insertOwned(db: Db, sessions: readonly OwnedRecord[]) {
  if (!sessions.length) return;
  const all = sessions.map(({ course, record: { rest, ...s } }) => sessionColumns(course, s));
  await run(db, `INSERT INTO sessions ${all[0]!.names} VALUES ?`, [all.map((c) => c.values)]);
}

/** Takes sessions away that were never rung in. What was said at their doors, who came and went, goes with them. */
export async function deleteSessions(db: Db, where: string, values: readonly (string | number | string[])[]) {
  const going = await rows<{ id: string }>(
    db,
    `SELECT id FROM sessions WHERE ${where} AND state NOT IN ('live', 'held') FOR UPDATE`,
    values,
  );
  if (!going.length) return;
  const ids = going.map((s) => s.id);
  // By their ids alone: what other rooms hold is neither read nor locked.
  await run(db, 'DELETE FROM room_events WHERE session_id IN (?)', [ids]);
  await run(db, 'DELETE FROM sessions WHERE id IN (?)', [ids]);
}

export const removeIfEmpty = (db: Db, series: string) =>
  run(db, 'DELETE FROM series WHERE id = ? AND NOT EXISTS (SELECT 1 FROM sessions WHERE series_id = ?)', [
    series,
    series,
  ]);

export const removeSeries = async (db: Db, id: string) => {
  await deleteSessions(db, 'series_id = ?', [id]);
  await removeIfEmpty(db, id);
};

/** Puts a student into another group, where they still are in the one that is named. */
export const moveFromGroup = (db: Db, from: string | null, to: string | null, member: string) =>
  run(db, 'UPDATE members SET group_name = ? WHERE id = ? AND group_name <=> ?', [to, member, from]);

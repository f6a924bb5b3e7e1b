import type { PlanChangeInfo, Role, Told } from '@nimble-bell/core/api';
import type { Own } from '@nimble-bell/core/calendar';
import type { SetupPerson } from '@nimble-bell/core/readiness';
import { json, one, rows, run, type Db } from '../db/pool';
import type { PlanDiff } from './snapshot';

export const zonesOf = (db: Db, courseId: string) =>
  rows<{ id: string; zone: string }>(
    db,
    'SELECT m.person_id AS id, m.zone FROM members m WHERE m.course_id = ?',
    [courseId],
  );

export const peopleForChecks = (db: Db, courseId: string) =>
  rows<SetupPerson>(
    db,
    `SELECT m.id, m.name, m.role, m.group_name AS \`group\`, m.zone, m.link_at AS linkAt,
                       (SELECT MAX(j.due_at) FROM jobs j WHERE j.member_id = m.id AND j.kind = 'mail'
                          AND j.topic IN ('invitation', 'link')) AS invitedAt
                  FROM members m WHERE m.course_id = ? ORDER BY m.name`,
    [courseId],
  );

export const wasHeld = (db: Db, seriesId: string) =>
  one(db, "SELECT id FROM sessions WHERE series_id = ? AND state IN ('live', 'held')", [seriesId]);

export const keepPlanChange = (
  db: Db,
  {
    id,
    courseId,
    at,
    by,
    words,
    body,
    told,
  }: { id: string; courseId: string; at: number; by: string; words: string; body: PlanDiff; told: number },
) =>
  run(
    db,
    'INSERT INTO plan_changes (id, course_id, at, made_by, words, body, told) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [id, courseId, at, by, words, JSON.stringify(body), told],
  );

/** Everyone of a course in all of their courses: who could be in two places at once. */
export const enrolmentsAround = (db: Db, courseId: string) =>
  rows<Enrolment>(
    db,
    `SELECT m.course_id AS courseId, m.id AS memberId, m.person_id AS personId, COALESCE(m.own_name, p.name) AS name,
            m.role, m.group_name AS \`group\`
       FROM enrolments me JOIN enrolments m ON m.person_id = me.person_id JOIN people p ON p.id = m.person_id
      WHERE me.course_id = ? AND me.left_at IS NULL AND m.left_at IS NULL
        AND m.role IN ('teacher', 'assistant', 'student')`,
    [courseId],
  );

export const timedSessions = (db: Db, courses: readonly string[], now: number) =>
  rows<Timed & { leads: unknown }>(
    db,
    `SELECT s.id, s.series_id AS seriesId, s.course_id AS courseId, c.code, r.title, r.group_name AS \`group\`, r.leads,
                         s.starts_at AS startsAt, s.ends_at AS endsAt
   FROM sessions s JOIN series r ON r.id = s.series_id JOIN courses c ON c.id = s.course_id
  WHERE s.course_id IN (?) AND r.kind NOT IN ('open', 'capture') AND s.state IN ('planned', 'moved', 'live') AND s.ends_at > ?
  ORDER BY s.starts_at`,
    [[...courses], now],
  );

export const stepAside = (db: Db, session: string) =>
  run(db, 'UPDATE sessions SET take = take + 1000 WHERE id = ?', [session]);

export const raiseSequences = (db: Db, series: readonly string[]) =>
  run(db, 'UPDATE series SET sequence = sequence + 1 WHERE id IN (?)', [[...series]]);

export const memberName = (db: Db, id: string, courseId: string) =>
  one<{ name: string }>(
    db,
    'SELECT m.name FROM members m JOIN people p ON p.id = m.person_id WHERE m.id = ? AND m.course_id = ?',
    [id, courseId],
  );

export const standingSessions = (db: Db, series: string) =>
  rows(db, "SELECT id FROM sessions WHERE series_id = ? AND state <> 'held'", [series]);

/** The latest change that stands. */
export const latestChange = (db: Db, courseId: string) =>
  one<{ id: string; words: string; body: unknown }>(
    db,
    `SELECT id, words, body FROM plan_changes WHERE course_id = ? AND undone_at IS NULL AND words NOT LIKE 'Undone: %'
          ORDER BY place DESC LIMIT 1`,
    [courseId],
  );

export const retimeStanding = (db: Db, startsAt: number, endsAt: number, series: string) =>
  run(db, "UPDATE sessions SET starts_at = ?, ends_at = ? WHERE series_id = ? AND state = 'planned'", [
    startsAt,
    endsAt,
    series,
  ]);

export const recordedSoFar = (db: Db) =>
  one<{ bytes: number | null; minutes: number | null }>(
    db,
    "SELECT SUM(bytes) AS bytes, SUM(length_ms) / 60000 AS minutes FROM recordings WHERE state = 'ready'",
  );

export const teachingAmong = (db: Db, courseId: string, members: readonly string[]) =>
  rows<{ id: string }>(
    db,
    "SELECT id FROM members WHERE course_id = ? AND role IN ('teacher', 'assistant') AND id IN (?)",
    [courseId, [...members]],
  );

export const noteUndone = (db: Db, now: number, change: string) =>
  run(db, 'UPDATE plan_changes SET undone_at = ? WHERE id = ?', [now, change]);

export const changesOf = (db: Db, courseId: string) =>
  rows<Omit<PlanChangeInfo, 'sessions' | 'undoable'> & { body: unknown }>(
    db,
    `SELECT id, at, made_by AS \`by\`, words, body, told, undone_at AS undoneAt
         FROM plan_changes WHERE course_id = ? ORDER BY place DESC LIMIT 100`,
    [courseId],
  );

export const isLive = (db: Db, seriesId: string) =>
  one(db, "SELECT id FROM sessions WHERE series_id = ? AND state = 'live'", [seriesId]);

/** Puts a student into another group, where they still are in the one that is named. */
export const moveFromGroup = (db: Db, from: string | null, to: string | null, member: string) =>
  run(db, 'UPDATE members SET group_name = ? WHERE id = ? AND group_name <=> ?', [to, member, from]);

export const setGroup = (db: Db, group: null | string, member: string) =>
  run(db, 'UPDATE members SET group_name = ? WHERE id = ?', [group, member]);

export const publishSeries = (db: Db, now: number, series: readonly string[]) =>
  run(db, 'UPDATE series SET published_at = ? WHERE id IN (?) AND published_at IS NULL', [now, [...series]]);

/** Those of a course, its teachers aside, who were invited, with what decides what they are told. */
export const invitedPeople = (db: Db, courseId: string) =>
  rows<Told & { role: Role; scope: unknown }>(
    db,
    `SELECT m.id AS member, m.name, m.role, m.scope FROM members m JOIN people p ON p.id = m.person_id
      WHERE m.course_id = ? AND m.role <> 'teacher'
        AND EXISTS (SELECT 1 FROM jobs j WHERE j.member_id = m.id AND j.kind = 'mail' AND j.topic IN ('invitation', 'link'))
      ORDER BY m.name`,
    [courseId],
  );

export const placeOfSession = (db: Db, id: string) =>
  one<{ seriesId: string; courseId: string; state: string }>(
    db,
    'SELECT series_id AS seriesId, course_id AS courseId, state FROM sessions WHERE id = ?',
    [id],
  );

export const listSeries = (db: Db, listed: boolean, series: string, courseId: string) =>
  run(db, 'UPDATE series SET listed = ? WHERE id = ? AND course_id = ?', [listed, series, courseId]);

/** A session's own word on being listed, none where it is as its series says. */
export const listSession = (db: Db, listed: boolean, session: string) =>
  run(
    db,
    'UPDATE sessions s JOIN series r ON r.id = s.series_id SET s.listed = IF(r.listed = ?, NULL, ?) WHERE s.id = ?',
    [listed, listed, session],
  );

export const renameSession = (db: Db, title: string | null, id: string) =>
  run(db, 'UPDATE sessions SET title = ? WHERE id = ?', [title, id]);

export const postSession = (db: Db, at: null | number, session: string) =>
  run(db, 'UPDATE sessions SET posted_at = ? WHERE id = ?', [at, session]);

export const courseOfSession = (db: Db, id: string) =>
  one<{ courseId: string }>(db, 'SELECT course_id AS courseId FROM sessions WHERE id = ?', [id]);

export const studentsOf = (db: Db, courseId: string) =>
  rows<{ id: string }>(db, "SELECT id FROM members WHERE course_id = ? AND role = 'student'", [courseId]);

export const clearGroups = (db: Db, courseId: string) =>
  run(db, "UPDATE members SET group_name = NULL WHERE course_id = ? AND role = 'student'", [courseId]);

export const putInGroup = (db: Db, group: string, people: readonly string[]) =>
  run(db, 'UPDATE members SET group_name = ? WHERE id IN (?)', [group, [...people]]);

export const publishOne = (db: Db, now: number, series: string) =>
  run(db, 'UPDATE series SET published_at = ? WHERE id = ?', [now, series]);

export const removeIfEmpty = (db: Db, series: string) =>
  run(db, 'DELETE FROM series WHERE id = ? AND NOT EXISTS (SELECT 1 FROM sessions WHERE series_id = ?)', [
    series,
    series,
  ]);

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
}

function readRecord(row: RawRecord): SessionRecord {
  const { id, series_id, course_id, local_date, take, number, starts_at, ends_at, ...more } = row;
  const { linger_minutes, state, title, own, replaces, record, ...rest } = more;
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
export async function snapshot(db: Db, course: string): Promise<Snapshot> {
  const series = await rows<RawSeries>(db, 'SELECT * FROM series WHERE course_id = ?', [course]);
  const sessions = await rows<RawRecord>(db, 'SELECT * FROM sessions WHERE course_id = ?', [course]);
  const members = await rows<{ id: string; group: string | null }>(
    db,
    'SELECT id, group_name AS `group` FROM members WHERE course_id = ?',
    [course],
  );
  return {
    series: new Map(series.map((s) => [s.id, readSeriesRecord(s)])),
    sessions: new Map(sessions.map((s) => [s.id, readRecord(s)])),
    groups: new Map(members.map((m) => [m.id, m.group])),
  };
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

export const removeSeries = async (db: Db, id: string) => {
  await deleteSessions(db, 'series_id = ?', [id]);
  await removeIfEmpty(db, id);
};

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
  });

/**
 * A session that is live or held keeps its times and state, whatever is written. Written over one that is there, it keeps
 * its other columns; put back, it has those it had.
 */
export const writeSession = (db: Db, course: string, s: SessionRecord) => writeSessions(db, course, [s]);

/** Several, in one statement: those that change dates are out of one another's way already. */
export async function writeSessions(db: Db, course: string, sessions: readonly SessionRecord[]) {
  const alike = new Map<string, unknown[][]>();
  for (const s of sessions) {
    const { names, values } = sessionColumns(course, s);
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
       replaces = VALUES(replaces), record = VALUES(record),
       state = IF(state IN ('live', 'held'), state, VALUES(state))`,
      [all],
    );
}

/** Many new sessions at once. */
export async function insertSessions(db: Db, course: string, sessions: readonly SessionRecord[]) {
  if (!sessions.length) return;
  const all = sessions.map(({ rest, ...s }) => sessionColumns(course, s));
  await run(db, `INSERT INTO sessions ${all[0]!.names} VALUES ?`, [all.map((c) => c.values)]);
}

export interface Enrolment {
  courseId: string;
  memberId: string;
  personId: string;
  name: string;
  role: string;
  group: string | null;
}

export interface Timed {
  id: string;
  seriesId: string;
  courseId: string;
  code: string;
  title: string;
  group: string | null;
  leads: string[];
  startsAt: number;
  endsAt: number;
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

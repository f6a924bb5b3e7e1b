import type { HeldSegment } from '@nimble-bell/core/room';
import type { HeldSegmentInfo, MemberScope, Role } from '@nimble-bell/core/api';
import type { Mark, RollLine } from '@nimble-bell/core/roll';
import { noSettings, Settings, type Layer } from '@nimble-bell/core/settings';
import { json, one, rows, run, type Db } from '../db/pool';

export const beginSession = (db: Db, session: string) =>
  run(db, "UPDATE sessions SET state = 'live' WHERE id = ?", [session]);

/**
 * A session is over. A room without dates that was dismissed is kept with the time it took, and stands ready again under
 * the next take, whose id is given.
 */
export async function endSession(db: Db, session: string, next: string) {
  await run(db, "UPDATE sessions SET state = 'held' WHERE id = ?", [session]);
  const row = await one<{ kind: string; from: number; until: number }>(
    db,
    `SELECT r.kind, (SELECT MIN(at) FROM room_events WHERE session_id = s.id) AS \`from\`,
            (SELECT MAX(at) FROM room_events WHERE session_id = s.id) AS until
       FROM sessions s JOIN series r ON r.id = s.series_id WHERE s.id = ?`,
    [session],
  );
  if (row?.kind !== 'open' && row?.kind !== 'capture') return;
  await run(
    db,
    `INSERT INTO sessions (id, series_id, course_id, local_date, take, number, starts_at, ends_at, linger_minutes, settings)
     SELECT ?, series_id, course_id, local_date, take + 1, number + 1, starts_at, ends_at, linger_minutes, settings
       FROM sessions WHERE id = ?`,
    [next, session],
  );
  await run(db, 'UPDATE sessions SET starts_at = ?, ends_at = ? WHERE id = ?', [
    row.from,
    row.until,
    session,
  ]);
}

/** A stored `settings` column. */
export function readSettings(value: unknown): Settings {
  return value === '{}' ? noSettings() : Settings.parse(json(value));
}

/** What courses and series say is said again with each of their sessions: read once, as long as it is the same text. */
const read = new Map<string, Settings>();
const MOST_READ = 500;
function sharedSettings(value: string): Settings {
  let settings = read.get(value);
  if (!settings) {
    if (read.size >= MOST_READ) read.clear();
    settings = readSettings(value);
    read.set(value, settings);
  }
  return settings;
}

/** As text. */
interface RawLayers {
  college: string;
  course: string;
  series: string;
  session: string;
  record: number | null;
}

/** What holds for a session before its class: the settings of the college, its course, its series and itself. `record` is the session's own word on being recorded. */
export function layersFrom({ college, course, series, session, record }: RawLayers): Layer[] {
  const own = readSettings(session);
  if (record !== null)
    own.recording = { ...own.recording, automatic: { value: Boolean(record), by: null, at: null } };
  return [
    { name: 'college', settings: sharedSettings(college) },
    { name: 'course', settings: sharedSettings(course) },
    { name: 'series', settings: sharedSettings(series) },
    { name: 'session', settings: own },
  ];
}

/** Somebody on a course's list, as a room's seats show them. */
export interface Seated {
  id: string;
  name: string;
  role: Role;
  group: string | null;
  scope: MemberScope | null;
}

export const seatedIn = async (db: Db, course: string): Promise<Seated[]> =>
  (
    await rows<Omit<Seated, 'scope'> & { scope: unknown }>(
      db,
      `SELECT m.id, m.called AS name, m.role, m.group_name AS \`group\`, m.scope
         FROM members m WHERE m.course_id = ?
        ORDER BY FIELD(m.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), m.name`,
      [course],
    )
  ).map((m) => ({ ...m, scope: m.scope === null ? null : json<MemberScope>(m.scope) }));

interface RawLine {
  session: string;
  member: string;
  name: string;
  role: Role;
  from: number | null;
  until: number | null;
  minutes: number;
  late: number;
  leftEarly: number;
  short: number;
  telephone: number;
  stays: unknown;
  mark: Mark | null;
  reason: string;
  correctedBy: string;
  correctedAt: number;
}

/** Roll lines as they were written, by a plain condition; everyone under the name they have now. */
export async function rollLinesWhere(db: Db, where: string, values: readonly (string | readonly string[])[]) {
  const found = await rows<RawLine>(
    db,
    `SELECT l.session_id AS session, l.member_id AS member, COALESCE(m.called_here, p.preferred_name, m.own_name, p.name, 'Somebody') AS name, l.role,
            l.arrived_at AS \`from\`, l.left_at AS until, l.minutes, l.late, l.left_early AS leftEarly, l.short, l.telephone, l.stays,
            k.mark, k.reason, k.made_by AS correctedBy, k.at AS correctedAt
       FROM roll_lines l LEFT JOIN roll_corrections k ON k.session_id = l.session_id AND k.member_id = l.member_id
            LEFT JOIN enrolments m ON m.id = l.member_id LEFT JOIN people p ON p.id = m.person_id
      WHERE ${where} ORDER BY FIELD(l.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), name`,
    values,
  );
  return found.map(
    ({
      session,
      late,
      leftEarly,
      short,
      telephone,
      stays,
      mark,
      reason,
      correctedBy: by,
      correctedAt: at,
      ...line
    }) => ({
      session,
      line: {
        ...line,
        state: line.from === null ? 'absent' : 'present',
        late: Boolean(late),
        leftEarly: Boolean(leftEarly),
        short: Boolean(short),
        telephone: Boolean(telephone),
        corrected: mark && { mark, reason, by, at },
        stays: json<RollLine['stays']>(stays),
      } satisfies RollLine,
    }),
  );
}

/** Writes a session's roll, in place of what was written of it. */
export const replaceRoll = (db: Db, session: string, lines: readonly RollLine[]) =>
  run(
    db,
    `REPLACE INTO roll_lines (session_id, member_id, role, arrived_at, left_at, minutes, late, left_early, short, telephone, stays) VALUES ?`,
    [
      lines.map((l) => [
        session,
        l.member,
        l.role,
        l.from,
        l.until,
        l.minutes,
        l.late,
        l.leftEarly,
        l.short,
        l.telephone,
        JSON.stringify(l.stays),
      ]),
    ],
  );

/** Sessions that were held before rolls were written down. */
export const heldWithoutRoll = async (db: Db): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      `SELECT s.id FROM sessions s WHERE s.state = 'held' AND NOT EXISTS (SELECT 1 FROM roll_lines l WHERE l.session_id = s.id)
          AND EXISTS (SELECT 1 FROM room_events e WHERE e.session_id = s.id)`,
    )
  ).map((row) => row.id);

/** Keeps how long each segment of a session's run sheet took; one that is on ends now. */
export const keepSegments = (db: Db, session: string, held: readonly HeldSegment[], now: number) =>
  run(db, 'REPLACE INTO held_segments (session_id, nr, title, minutes, from_at, until_at) VALUES ?', [
    held.map((h, nr) => [session, nr, h.title, Math.round(h.minutes), h.from, h.until ?? now]),
  ]);

/** The segments that were held in a course, in order. */
export const heldSegmentsOf = (db: Db, course: string) =>
  rows<HeldSegmentInfo>(
    db,
    `SELECT h.session_id AS session, s.starts_at AS startsAt, h.title, h.minutes,
            h.from_at AS \`from\`, h.until_at AS until
       FROM held_segments h JOIN sessions s ON s.id = h.session_id WHERE s.course_id = ? ORDER BY s.starts_at, h.nr`,
    [course],
  );

interface RawMark {
  session: string;
  member: string;
  there: number;
  minutes: number;
  late: number;
  leftEarly: number;
  short: number;
  telephone: number;
  mark: Mark | null;
}

/** What the rolls of some sessions say of their students, and no more: a term of a large class is many thousand lines. */
export const rollMarks = async (db: Db, sessions: readonly string[]) =>
  sessions.length
    ? (
        await rows<RawMark>(
          db,
          `SELECT l.session_id AS session, l.member_id AS member, l.arrived_at IS NOT NULL AS there, l.minutes, l.late,
                  l.left_early AS leftEarly, l.short, l.telephone, k.mark
             FROM roll_lines l LEFT JOIN roll_corrections k ON k.session_id = l.session_id AND k.member_id = l.member_id
            WHERE l.session_id IN (?) AND l.role = 'student'`,
          [[...sessions]],
        )
      ).map(({ session, member, minutes, mark, ...l }) => ({
        ...{ session, member, minutes, corrected: mark && { mark } },
        state: l.there ? ('present' as const) : ('absent' as const),
        late: Boolean(l.late),
        leftEarly: Boolean(l.leftEarly),
        short: Boolean(l.short),
        telephone: Boolean(l.telephone),
      }))
    : [];

/** How long sessions were, in minutes: as long as whoever was there longest. */
export const heldMinutes = async (db: Db, sessions: readonly string[]) =>
  new Map(
    sessions.length
      ? (
          await rows<{ session: string; minutes: number }>(
            db,
            'SELECT session_id AS session, MAX(minutes) AS minutes FROM roll_lines WHERE session_id IN (?) GROUP BY session_id',
            [[...sessions]],
          )
        ).map((s) => [s.session, s.minutes])
      : [],
  );

/** Says in place of the rules what somebody's line is; null takes that back. */
export const correctRoll = (
  db: Db,
  { session, member }: { session: string; member: string },
  said: { mark: Mark; reason: string; by: string; at: number } | null,
) =>
  said
    ? run(
        db,
        'REPLACE INTO roll_corrections (session_id, member_id, mark, reason, made_by, at) VALUES (?, ?, ?, ?, ?, ?)',
        [session, member, said.mark, said.reason, said.by, said.at],
      )
    : run(db, 'DELETE FROM roll_corrections WHERE session_id = ? AND member_id = ?', [session, member]);

/** When the classes of a course began and ended, by session. */
export const spansOf = async (db: Db, sessions: readonly string[]) =>
  new Map(
    sessions.length
      ? (
          await rows<{ session: string; from: number | null; until: number | null }>(
            db,
            `SELECT session_id AS session, MIN(IF(JSON_VALUE(body, '$.type') = 'rangIn', at, NULL)) AS \`from\`,
                    MAX(IF(JSON_VALUE(body, '$.type') = 'dismissed', at, NULL)) AS until
               FROM room_events WHERE session_id IN (?) AND JSON_VALUE(body, '$.type') IN ('rangIn', 'dismissed')
              GROUP BY session_id`,
            [[...sessions]],
          )
        ).map(({ session, from, until }) => [session, { from, until }])
      : [],
  );

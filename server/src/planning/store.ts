import type { PlanChangeInfo } from '@nimble-bell/core/api';
import type { SetupPerson } from '@nimble-bell/core/readiness';
import { json, one, rows, run, type Db } from '../db/pool';

export interface Enrolment {
  courseId: string;
  memberId: string;
  personId: string;
  name: string;
  role: string;
  group: string | null;
}

/** A series whose sessions take somebody's time. */
export interface BusySeries {
  id: string;
  courseId: string;
  code: string;
  title: string;
  group: string | null;
  leads: string[];
}

/** A session ahead as nothing but its time: a college has thousands. */
export interface BusyTime {
  id: string;
  seriesId: string;
  startsAt: number;
  endsAt: number;
}

export const zonesOf = (db: Db, courseId: string) =>
  rows<{ id: string; zone: string }>(
    db,
    'SELECT m.person_id AS id, m.zone FROM members m WHERE m.course_id = ?',
    [courseId],
  );

export const peopleForChecks = (db: Db, courseId: string) =>
  rows<SetupPerson>(
    db,
    `SELECT m.id, m.name, m.role, m.group_name AS \`group\`, m.zone, m.link_at AS linkAt, invited.at AS invitedAt
       FROM members m LEFT JOIN (
              SELECT member_id, MAX(due_at) AS at FROM jobs
               WHERE course_id = ? AND kind = 'mail' AND topic IN ('invitation', 'link') GROUP BY member_id
            ) invited ON invited.member_id = m.id
      WHERE m.course_id = ? ORDER BY m.name`,
    [courseId, courseId],
  );

export const wasHeld = (db: Db, seriesId: string) =>
  one(db, "SELECT id FROM sessions WHERE series_id = ? AND state IN ('live', 'held')", [seriesId]);

/**
 * Everyone of a course in all of their courses: who could be in two places at once. Read from the course's own people
 * outwards: by stale statistics the database began with everybody in the college.
 */
export const enrolmentsAround = (db: Db, courseId: string) =>
  rows<Enrolment>(
    db,
    `SELECT STRAIGHT_JOIN m.course_id AS courseId, m.id AS memberId, m.person_id AS personId, COALESCE(m.own_name, p.name) AS name,
            m.role, m.group_name AS \`group\`
       FROM enrolments me JOIN enrolments m ON m.person_id = me.person_id JOIN people p ON p.id = m.person_id
      WHERE me.course_id = ? AND me.left_at IS NULL AND m.left_at IS NULL
        AND m.role IN ('teacher', 'assistant', 'student')
        AND m.course_id NOT IN (SELECT course_id FROM rehearsals)`,
    [courseId],
  );

export const busySeries = async (db: Db, courses: readonly string[]): Promise<BusySeries[]> =>
  (
    await rows<BusySeries>(
      db,
      `SELECT r.id, r.course_id AS courseId, c.code, r.title, r.group_name AS \`group\`, r.leads
         FROM series r JOIN courses c ON c.id = r.course_id
        WHERE r.course_id IN (?) AND r.kind NOT IN ('open', 'capture')`,
      [[...courses]],
    )
  ).map((r) => ({ ...r, leads: json<string[]>(r.leads) }));

/** By start. */
export const busyTimes = (db: Db, courses: readonly string[], now: number) =>
  rows<BusyTime>(
    db,
    `SELECT id, series_id AS seriesId, starts_at AS startsAt, ends_at AS endsAt FROM sessions
      WHERE course_id IN (?) AND state IN ('planned', 'moved', 'live') AND ends_at > ? ORDER BY starts_at`,
    [[...courses], now],
  );

/** Out of the way of others that come to their dates. */
export const stepAside = (db: Db, sessions: readonly string[]) =>
  run(db, 'UPDATE sessions SET take = take + 1000 WHERE id IN (?)', [[...sessions]]);

export const raiseSequences = (db: Db, series: readonly string[]) =>
  run(db, 'UPDATE series SET sequence = sequence + 1 WHERE id IN (?)', [[...series]]);

export const memberName = (db: Db, id: string, courseId: string) =>
  one<{ name: string }>(
    db,
    'SELECT m.name FROM members m JOIN people p ON p.id = m.person_id WHERE m.id = ? AND m.course_id = ?',
    [id, courseId],
  );

export const teachingAmong = (db: Db, courseId: string, members: readonly string[]) =>
  rows<{ id: string }>(
    db,
    "SELECT id FROM members WHERE course_id = ? AND role IN ('teacher', 'assistant') AND id IN (?)",
    [courseId, [...members]],
  );

export const changesOf = (db: Db, courseId: string) =>
  rows<Omit<PlanChangeInfo, 'sessions' | 'undoable' | 'spent'> & { body: unknown }>(
    db,
    `SELECT c.id, c.at, c.made_by AS \`by\`, c.words, c.body, c.undone_at AS undoneAt,
            COUNT(IF(j.state = 'done', 1, NULL)) AS told, COUNT(IF(j.state = 'queued', 1, NULL)) AS waiting
       FROM plan_changes c LEFT JOIN news n ON n.change_id = c.id LEFT JOIN jobs j ON j.id = n.job_id
      WHERE c.course_id = ? GROUP BY c.id ORDER BY c.place DESC LIMIT 100`,
    [courseId],
  );

export const isLive = (db: Db, seriesId: string) =>
  one(db, "SELECT id FROM sessions WHERE series_id = ? AND state = 'live'", [seriesId]);

export const setGroup = (db: Db, group: null | string, member: string) =>
  run(db, 'UPDATE members SET group_name = ? WHERE id = ?', [group, member]);

export const publishSeries = (db: Db, now: number, series: readonly string[]) =>
  run(db, 'UPDATE series SET published_at = ? WHERE id IN (?) AND published_at IS NULL', [now, [...series]]);

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

export const clearGroups = (db: Db, courseId: string) =>
  run(db, "UPDATE members SET group_name = NULL WHERE course_id = ? AND role = 'student'", [courseId]);

export const putInGroup = (db: Db, group: string, people: readonly string[]) =>
  run(db, 'UPDATE members SET group_name = ? WHERE id IN (?)', [group, [...people]]);

export const publishOne = (db: Db, now: number, series: string) =>
  run(db, 'UPDATE series SET published_at = ? WHERE id = ?', [now, series]);

import type {
  CourseCard,
  Limits,
  MeetingPattern,
  RecordingPlan,
  Role,
  SeriesInfo,
  SessionInfo,
  Term,
} from '@nimble-bell/core/api';
import { sessionsOf } from '@nimble-bell/core/calendar';
import type { DoorRules } from '@nimble-bell/core/door';
import { newId } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';

export interface CourseRow {
  id: string;
  termId: string;
  code: string;
  title: string;
  limits: Limits;
  limitsBy: string | null;
  limitsAt: number | null;
  door: DoorRules;
  recordingPlan: RecordingPlan | null;
  term: Term;
}

export async function courseById(db: Db, id: string): Promise<CourseRow | null> {
  const row = await one<Record<string, unknown>>(
    db,
    `SELECT c.id, c.term_id AS termId, c.code, c.title, c.limits, c.limits_by AS limitsBy, c.limits_at AS limitsAt,
            c.door, c.recording_plan AS recordingPlan, t.body AS term
       FROM courses c JOIN terms t ON t.id = c.term_id WHERE c.id = ?`,
    [id],
  );
  if (!row) return null;
  const { limits, door, recordingPlan, term, ...plain } = row;
  return {
    ...plain,
    limits: json(limits),
    door: json(door),
    recordingPlan: recordingPlan ? json(recordingPlan) : null,
    term: json(term),
  } as CourseRow;
}

export const coursesOf = (db: Db, person: string, now: number) =>
  rows<Omit<CourseCard, 'next'> & { nextId: string | null; nextAt: number | null; nextState: string | null }>(
    db,
    `SELECT c.id, c.code, c.title, m.role, n.id AS nextId, n.starts_at AS nextAt, n.state AS nextState,
            (SELECT COUNT(*) FROM members s WHERE s.course_id = c.id AND s.role = 'student') AS students
       FROM members m JOIN courses c ON c.id = m.course_id
       LEFT JOIN sessions n ON n.id = (
         SELECT s.id FROM sessions s WHERE s.course_id = c.id
            AND (s.state = 'live' OR (s.state IN ('planned', 'moved') AND s.ends_at > ?))
          ORDER BY s.state = 'live' DESC, s.starts_at LIMIT 1)
      WHERE m.person_id = ? ORDER BY c.code`,
    [now, person],
  );

export async function insertCourse(
  db: Db,
  course: { termId: string; code: string; title: string; limits: Limits; door: DoorRules },
): Promise<string> {
  const id = newId();
  await run(db, 'INSERT INTO courses (id, term_id, code, title, limits, door) VALUES (?, ?, ?, ?, ?, ?)', [
    id,
    course.termId,
    course.code,
    course.title,
    JSON.stringify(course.limits),
    JSON.stringify(course.door),
  ]);
  return id;
}

export async function seriesOf(db: Db, course: string): Promise<(SeriesInfo & { sequence: number })[]> {
  const found = await rows<SeriesInfo & { sequence: number; pattern: unknown }>(
    db,
    'SELECT id, title, pattern, group_name AS `group`, sequence FROM series WHERE course_id = ? ORDER BY title, id',
    [course],
  );
  return found.map((s) => ({ ...s, pattern: json<MeetingPattern>(s.pattern) }));
}

const SESSION = `SELECT s.id, s.series_id AS seriesId, r.title AS seriesTitle, s.number, s.local_date AS date,
                        s.starts_at AS startsAt, s.ends_at AS endsAt, s.linger_minutes AS lingerMinutes, s.state,
                        r.group_name AS \`group\`, s.course_id AS courseId,
                        ROUND((s.ends_at - s.starts_at) / 60000) AS minutes
                   FROM sessions s JOIN series r ON r.id = s.series_id`;

type SessionRow = SessionInfo & { courseId: string };
const asNumbers = (s: SessionRow): SessionRow => ({ ...s, minutes: Number(s.minutes) });

export const sessionsOfCourse = async (db: Db, course: string): Promise<SessionRow[]> =>
  (
    await rows<SessionRow>(db, `${SESSION} WHERE s.course_id = ? ORDER BY s.starts_at, r.title`, [course])
  ).map(asNumbers);

export async function sessionById(db: Db, id: string): Promise<SessionRow | null> {
  const row = await one<SessionRow>(db, `${SESSION} WHERE s.id = ?`, [id]);
  return row && asNumbers(row);
}

export const setSessionState = (db: Db, id: string, state: SessionInfo['state']) =>
  run(db, 'UPDATE sessions SET state = ? WHERE id = ?', [state, id]);

/**
 * Lays the sessions of a pattern as rows. A date that stays keeps its row and all that hangs on it; a planned one that
 * the pattern no longer gives goes; one that was moved, cancelled or held stays as it is.
 */
export async function laySessions(
  db: Db,
  series: { id: string; courseId: string; pattern: MeetingPattern },
  term: Term,
) {
  const planned = sessionsOf(term, series.pattern).sessions;
  const kept = await rows<{ id: string; date: string; state: string }>(
    db,
    'SELECT id, local_date AS date, state FROM sessions WHERE series_id = ? FOR UPDATE',
    [series.id],
  );
  const dates = new Set(planned.map((p) => p.date));
  const gone = kept.filter((k) => k.state === 'planned' && !dates.has(k.date)).map((k) => k.id);
  if (gone.length) await run(db, 'DELETE FROM sessions WHERE id IN (?)', [gone]);
  const values = planned.map((p) => [
    newId(),
    series.id,
    series.courseId,
    p.date,
    p.number,
    p.startsAt,
    p.endsAt,
    series.pattern.lingerMinutes,
  ]);
  if (values.length)
    await run(
      db,
      `INSERT INTO sessions (id, series_id, course_id, local_date, number, starts_at, ends_at, linger_minutes) VALUES ?
       ON DUPLICATE KEY UPDATE number = VALUES(number),
         starts_at = IF(state = 'planned', VALUES(starts_at), starts_at),
         ends_at = IF(state = 'planned', VALUES(ends_at), ends_at),
         linger_minutes = IF(state = 'planned', VALUES(linger_minutes), linger_minutes)`,
      [values],
    );
  return planned.length;
}

export async function insertSeries(
  db: Db,
  input: { courseId: string; title: string; pattern: MeetingPattern; group: string | null },
): Promise<string> {
  const id = newId();
  await run(db, 'INSERT INTO series (id, course_id, title, pattern, group_name) VALUES (?, ?, ?, ?, ?)', [
    id,
    input.courseId,
    input.title,
    JSON.stringify(input.pattern),
    input.group,
  ]);
  return id;
}

export const addMember = (
  db: Db,
  member: { id: string; courseId: string; personId: string; role: Role; group: string | null; link: string },
) =>
  run(
    db,
    'INSERT INTO members (id, course_id, person_id, role, group_name, link_code) VALUES (?, ?, ?, ?, ?, ?)',
    [member.id, member.courseId, member.personId, member.role, member.group, member.link],
  );

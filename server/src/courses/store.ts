import { afterRules } from '@nimble-bell/core/after';
import type {
  CourseCard,
  InvitationTemplate,
  InviteBefore,
  Limits,
  RecordingPlan,
  Role,
  SeriesInfo,
  SessionInfo,
  Term,
} from '@nimble-bell/core/api';
import type { Own } from '@nimble-bell/core/calendar';
import { doorRules, type DoorRules } from '@nimble-bell/core/door';
import { resolveAll } from '@nimble-bell/core/limits';
import { planOf } from '@nimble-bell/core/recording';
import type { Layer, Settings } from '@nimble-bell/core/settings';
import { newId } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';
import { layersFrom, readSettings } from '../sessions/store';

export interface CourseRow {
  id: string;
  termId: string;
  code: string;
  title: string;
  /** What the course itself says of limits, door and recording; the three after it are what is in force by it. */
  settings: Settings;
  limits: Limits;
  door: DoorRules;
  recordingPlan: RecordingPlan | null;
  /** Whether it is counted how each takes part. */
  countsPart: boolean;
  youngPupils: boolean;
  term: Term;
  /** Minutes before each session. */
  reminders: number[];
  inviteBefore: InviteBefore | null;
  telephone: string | null;
  invitation: InvitationTemplate | null;
  classLink: string | null;
  classPasscode: string | null;
  archivedAt: number | null;
  /** Its own id where it is a rehearsal; empty in courses that are taught. */
  rehearsal: string;
}

export const courseById = async (db: Db, id: string): Promise<CourseRow | null> =>
  (await coursesByIds(db, [id]))[0] ?? null;

export async function coursesByIds(db: Db, ids: readonly string[]): Promise<CourseRow[]> {
  const found = await rows<Record<string, unknown>>(
    db,
    `SELECT c.id, c.term_id AS termId, c.code, c.title, c.settings, (SELECT settings FROM college) AS college, c.young_pupils AS youngPupils, t.body AS term,
            c.reminders, c.invite_before AS inviteBefore, c.telephone, c.invitation, c.class_link AS classLink, c.class_passcode AS classPasscode,
            c.archived_at AS archivedAt, c.rehearsal
       FROM courses c JOIN terms t ON t.id = c.term_id WHERE c.id IN (?)`,
    [ids],
  );
  return found.map(readCourse);
}

function readCourse(row: Record<string, unknown>): CourseRow {
  const { term, college, youngPupils, reminders, inviteBefore, invitation, ...plain } = row;
  const settings = readSettings(row.settings);
  const layers: Layer[] = [
    { name: 'college', settings: readSettings(college) },
    { name: 'course', settings },
  ];
  return {
    ...plain,
    settings,
    limits: resolveAll(layers),
    door: doorRules(layers),
    recordingPlan: planOf(layers),
    countsPart: afterRules(layers).participation,
    term: json(term),
    youngPupils: Boolean(youngPupils),
    reminders: json(reminders),
    inviteBefore: inviteBefore ? json(inviteBefore) : null,
    invitation: invitation ? json(invitation) : null,
  } as CourseRow;
}

/** A person's courses by code, with what is on in each or comes next. */
export async function coursesOf(db: Db, person: string, now: number): Promise<CourseCard[]> {
  const own = await rows<Omit<CourseCard, 'students' | 'next'>>(
    db,
    `SELECT c.id, c.code, c.title, m.role, JSON_VALUE(t.body, '$.name') AS term, c.archived_at AS archivedAt
       FROM enrolments m JOIN courses c ON c.id = m.course_id JOIN terms t ON t.id = c.term_id
      WHERE m.person_id = ? AND m.left_at IS NULL AND c.rehearsal = '' ORDER BY c.code, JSON_VALUE(t.body, '$.firstDay')`,
    [person],
  );
  if (!own.length) return [];
  const ids = own.map((c) => c.id);
  const [counts, next] = await Promise.all([
    rows<{ course: string; students: number }>(
      db,
      `SELECT course_id AS course, COUNT(*) AS students FROM enrolments
        WHERE course_id IN (?) AND role = 'student' AND left_at IS NULL GROUP BY course_id`,
      [ids],
    ),
    rows<{ course: string } & NonNullable<CourseCard['next']>>(
      db,
      `SELECT course, id, startsAt, state FROM (
         SELECT s.course_id AS course, s.id, s.starts_at AS startsAt, s.state,
                ROW_NUMBER() OVER (PARTITION BY s.course_id ORDER BY s.state = 'live' DESC, s.starts_at) AS place
           FROM sessions s JOIN series q ON q.id = s.series_id
          WHERE s.course_id IN (?) AND q.kind NOT IN ('open', 'capture')
            AND (s.state = 'live' OR (s.state IN ('planned', 'moved') AND s.ends_at > ?))) n
        WHERE place = 1`,
      [ids, now],
    ),
  ]);
  const students = new Map(counts.map((c) => [c.course, c.students]));
  const coming = new Map(next.map(({ course, ...session }) => [course, session]));
  return own.map((c) => ({ ...c, students: students.get(c.id) ?? 0, next: coming.get(c.id) ?? null }));
}

export async function insertCourse(
  db: Db,
  course: { termId: string; code: string; title: string },
): Promise<string> {
  const id = newId();
  await run(db, 'INSERT INTO courses (id, term_id, code, title) VALUES (?, ?, ?, ?)', [
    id,
    course.termId,
    course.code,
    course.title,
  ]);
  return id;
}

export interface SeriesRow extends SeriesInfo {
  courseId: string;
  sequence: number;
}

const SERIES = `SELECT id, course_id AS courseId, title, pattern, group_name AS \`group\`, sequence, kind, expected, leads,
                       published_at AS publishedAt, listed FROM series`;

const readSeries = (s: SeriesRow) => ({
  ...s,
  pattern: s.pattern === null ? null : json<NonNullable<SeriesRow['pattern']>>(s.pattern),
  leads: json<string[]>(s.leads),
  listed: Boolean(s.listed),
});

export const seriesOf = (db: Db, course: string): Promise<SeriesRow[]> => seriesOfCourses(db, [course]);

export const seriesOfCourses = async (db: Db, courses: readonly string[]): Promise<SeriesRow[]> =>
  (await rows<SeriesRow>(db, `${SERIES} WHERE course_id IN (?) ORDER BY kind, title, id`, [courses])).map(
    readSeries,
  );

export const seriesByIds = async (db: Db, ids: readonly string[]): Promise<SeriesRow[]> =>
  (await rows<SeriesRow>(db, `${SERIES} WHERE id IN (?) ORDER BY id`, [ids])).map(readSeries);

export async function seriesById(db: Db, id: string) {
  const row = await one<SeriesRow>(db, `${SERIES} WHERE id = ?`, [id]);
  return row && readSeries(row);
}

const COLUMNS = `s.id, s.series_id AS seriesId, r.title AS seriesTitle, s.number, s.local_date AS date,
                 s.starts_at AS startsAt, s.ends_at AS endsAt, s.linger_minutes AS lingerMinutes, s.state,
                 r.group_name AS \`group\`, s.course_id AS courseId, r.kind, s.title, s.own, s.replaces, s.record, s.take, s.reason,
                 IF(r.kind = 'capture', s.posted_at, r.published_at) IS NOT NULL AS published,
                 COALESCE(s.listed, r.listed) AS listed`;
const SESSION = `SELECT ${COLUMNS} FROM sessions s JOIN series r ON r.id = s.series_id`;
/** The same with what college, course, series and session say, as text: the driver would read each of them for every row. */
const LAYERED = `SELECT ${COLUMNS}, s.missed_at AS missedAt, (SELECT CAST(settings AS CHAR) FROM college) AS ofCollege,
                        CAST(c.settings AS CHAR) AS ofCourse, CAST(r.settings AS CHAR) AS ofSeries,
                        CAST(s.settings AS CHAR) AS ofSession
                   FROM sessions s JOIN series r ON r.id = s.series_id JOIN courses c ON c.id = s.course_id`;

/** A room without dates stands ready, or is live, as one row; held ones are sessions like others. */
const STANDING = "(r.kind IN ('open', 'capture') AND s.state <> 'held')";

export interface SessionRow extends SessionInfo {
  courseId: string;
}

/** A session with what college, course, series and itself say of limits, door and recording. */
export interface LayeredSession extends SessionRow {
  layers: Layer[];
  /** When those who teach were told that nobody has rung in. */
  missedAt: number | null;
}

interface RawSession extends Omit<SessionRow, 'minutes' | 'own' | 'record' | 'published' | 'listed'> {
  own: string;
  record: number | null;
  published: number;
  listed: number;
}
interface RawLayered extends RawSession {
  ofCollege: string;
  ofCourse: string;
  ofSeries: string;
  ofSession: string;
  missedAt: number | null;
}

/** In the row itself: a college's calendar reads thousands. */
const readSession = (row: RawSession): SessionRow =>
  Object.assign(row, {
    minutes: Math.round((row.endsAt - row.startsAt) / 60_000),
    own: row.own ? (row.own.split(',') as Own[]) : [],
    record: row.record === null ? null : Boolean(row.record),
    published: Boolean(row.published),
    listed: Boolean(row.listed),
  });

const readLayered = ({ ofCollege, ofCourse, ofSeries, ofSession, ...row }: RawLayered): LayeredSession => {
  const layers = layersFrom({
    ...{ college: ofCollege, course: ofCourse, series: ofSeries, session: ofSession },
    record: row.record,
  });
  return { ...readSession(row), layers, missedAt: row.missedAt };
};

/** A session as pages are told of it. */
export const bare = ({
  courseId,
  layers,
  missedAt,
  ...session
}: SessionRow & Partial<LayeredSession>): SessionInfo => session;

const OF_COURSES = `WHERE s.course_id IN (?) AND NOT ${STANDING} ORDER BY s.starts_at, r.title`;

/** The dated sessions of a course, and the standing ones that were held. */
export const sessionsOfCourse = (db: Db, course: string): Promise<SessionRow[]> =>
  sessionsOfCourses(db, [course]);

export const sessionsOfCourses = async (db: Db, courses: readonly string[]): Promise<SessionRow[]> =>
  (await rows<RawSession>(db, `${SESSION} ${OF_COURSES}`, [courses])).map(readSession);

/** The same with what holds in each of them. */
export const layeredSessionsOf = async (db: Db, course: string): Promise<LayeredSession[]> =>
  (await rows<RawLayered>(db, `${LAYERED} ${OF_COURSES}`, [[course]])).map(readLayered);

/** The rooms without dates that stand ready. */
export const standingOf = async (db: Db, course: string): Promise<LayeredSession[]> =>
  (
    await rows<RawLayered>(db, `${LAYERED} WHERE s.course_id = ? AND ${STANDING} ORDER BY r.title`, [course])
  ).map(readLayered);

export async function sessionById(db: Db, id: string): Promise<LayeredSession | null> {
  const row = await one<RawLayered>(db, `${LAYERED} WHERE s.id = ?`, [id]);
  return row && readLayered(row);
}

/** Published classes that were to begin in a stretch of time, and have not; of which nobody was told. */
export const notBegun = (db: Db, from: number, to: number) =>
  rows<{ id: string }>(
    db,
    `SELECT s.id FROM sessions s JOIN series r ON r.id = s.series_id
      WHERE s.state IN ('planned', 'moved') AND s.starts_at > ? AND s.starts_at <= ? AND COALESCE(s.missed_at, 0) < s.starts_at
        AND r.published_at IS NOT NULL AND r.kind NOT IN ('open', 'capture')`,
    [from, to],
  );

/** Notes that those who teach are told now; gives whether it was so, and nobody had noted it. */
export const noteMissed = async (db: Db, id: string, now: number): Promise<boolean> =>
  (
    await run(
      db,
      "UPDATE sessions SET missed_at = ? WHERE id = ? AND COALESCE(missed_at, 0) < starts_at AND state IN ('planned', 'moved')",
      [now, id],
    )
  ).affectedRows > 0;

export const addMember = (
  db: Db,
  member: { id: string; courseId: string; personId: string; role: Role; group: string | null; link: string },
) =>
  run(
    db,
    `INSERT INTO enrolments (id, course_id, person_id, role, group_name, link_code, calendar_secret)
       VALUES (?, ?, ?, ?, ?, ?, ?)`,
    [member.id, member.courseId, member.personId, member.role, member.group, member.link, newId()],
  );

/** A course's stored settings, its row locked until the transaction ends. */
export const settingsForUpdate = (db: Db, courseId: string) =>
  one<{ settings: unknown }>(db, 'SELECT settings FROM courses WHERE id = ? FOR UPDATE', [courseId]);

/** Those who teach a course. */
export const teachersOf = (db: Db, courseId: string) =>
  rows<{ id: string; name: string; role: Role }>(
    db,
    "SELECT m.id, m.name, m.role FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND m.role IN ('teacher', 'assistant') ORDER BY m.role, p.name",
    [courseId],
  );

export const studentsOf = (db: Db, courseId: string) =>
  rows<{ id: string }>(db, "SELECT id FROM members WHERE course_id = ? AND role = 'student'", [courseId]);

/** Students, those of them who were invited and those whose latest invitation was lost, and recordings. */
export async function countsOf(db: Db, courseId: string) {
  const counts = await one<{ students: number; recordings: number }>(
    db,
    `SELECT (SELECT COUNT(*) FROM members WHERE course_id = ? AND role = 'student') AS students,
            (SELECT COUNT(*) FROM recordings r JOIN sessions s ON s.id = r.session_id
              WHERE s.course_id = ? AND r.state = 'ready' AND r.taken_at IS NULL) AS recordings`,
    [courseId, courseId],
  );
  // The latest of each is the one with the highest number; whether it was lost stands behind it.
  const invited = await one<{ invited: number; undelivered: number | null }>(
    db,
    `SELECT COUNT(*) AS invited, CAST(SUM(latest LIKE '% 1') AS INT) AS undelivered FROM (
       SELECT MAX(CONCAT(LPAD(j.id, 12, '0'), ' ', j.bounced_at IS NOT NULL OR j.state = 'failed')) AS latest
         FROM jobs j JOIN members m ON m.id = j.member_id
        WHERE j.course_id = ? AND j.kind = 'mail' AND j.topic IN ('invitation', 'link') AND m.role = 'student'
        GROUP BY j.member_id) each_one`,
    [courseId],
  );
  return { ...counts!, invited: invited!.invited, undelivered: Number(invited!.undelivered ?? 0) };
}

export const writeSettings = (db: Db, settings: unknown, courseId: string) =>
  run(db, 'UPDATE courses SET settings = ? WHERE id = ?', [JSON.stringify(settings), courseId]);

export const courseByCode = (db: Db, termId: string, code: string) =>
  one(db, "SELECT id FROM courses WHERE term_id = ? AND code = ? AND rehearsal = ''", [termId, code]);

export const nameCourse = (db: Db, title: string, youngPupils: boolean, courseId: string) =>
  run(db, 'UPDATE courses SET title = ?, young_pupils = ? WHERE id = ?', [title, youngPupils, courseId]);

export const termIdOf = (db: Db, courseId: string) =>
  one<{ termId: string }>(db, 'SELECT term_id AS termId FROM courses WHERE id = ?', [courseId]);

/** The course's row, locked until the transaction ends: see `takeTurn`. */
export const courseForUpdate = (db: Db, courseId: string) =>
  one<{ termId: string }>(db, 'SELECT term_id AS termId FROM courses WHERE id = ? FOR UPDATE', [courseId]);

/** The courses of a term, their rows locked in the order in which everybody locks several. */
export const coursesForUpdate = (db: Db, ids: readonly string[]) =>
  rows<{ id: string }>(db, 'SELECT id FROM courses WHERE id IN (?) ORDER BY id FOR UPDATE', [ids]);

/** What tells whether anything of a course's plan, list or letters is otherwise than it was: it is compared, not read. */
export const pulseOf = async (db: Db, courseId: string): Promise<string> => {
  const found = await one<Record<string, unknown>>(
    db,
    `SELECT (SELECT MAX(place) FROM plan_changes WHERE course_id = ?) AS plan,
            (SELECT MAX(place) FROM list_changes WHERE course_id = ?) AS list,
            (SELECT CONCAT_WS(' ', COUNT(*), SUM(state <> 'queued'), COUNT(bounced_at)) FROM jobs
              WHERE course_id = ? AND kind = 'mail') AS letters,
            (SELECT MAX(r.at) FROM replies r JOIN members m ON m.id = r.member_id WHERE m.course_id = ?) AS answers`,
    [courseId, courseId, courseId, courseId],
  );
  return Object.values(found!).join('/');
};

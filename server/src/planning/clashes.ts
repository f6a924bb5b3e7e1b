import type { NamedClash } from '@nimble-bell/core/api';
import { clashesOf, type TimedSeries } from '@nimble-bell/core/clashes';
import { json, rows, type Db } from '../db/pool';

interface Enrolment {
  courseId: string;
  memberId: string;
  personId: string;
  name: string;
  role: string;
  group: string | null;
}

interface Timed {
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

/** Everyone of the courses that share a person with this one. */
const ENROLMENTS = `SELECT m.course_id AS courseId, m.id AS memberId, m.person_id AS personId, m.name, m.role, m.group_name AS \`group\`
   FROM members m JOIN people p ON p.id = m.person_id
  WHERE m.course_id IN (SELECT o.course_id FROM members me JOIN members o ON o.person_id = me.person_id WHERE me.course_id = ?)
    AND m.role IN ('teacher', 'assistant', 'student')`;

const SESSIONS = `SELECT s.id, s.series_id AS seriesId, s.course_id AS courseId, c.code, r.title, r.group_name AS \`group\`, r.leads,
                         s.starts_at AS startsAt, s.ends_at AS endsAt
   FROM sessions s JOIN series r ON r.id = s.series_id JOIN courses c ON c.id = s.course_id
  WHERE s.course_id IN (?) AND r.kind NOT IN ('open', 'capture') AND s.state IN ('planned', 'moved', 'live') AND s.ends_at > ?
  ORDER BY s.starts_at`;

/** Who must be at a series: its leads, or else the course's teachers; and the students it is for. */
export function peopleOf(
  series: { group: string | null; leads: readonly string[] },
  course: readonly Enrolment[],
): string[] {
  return course
    .filter((m) => {
      if (m.role === 'student') return series.group === null || m.group === series.group;
      return series.leads.length ? series.leads.includes(m.memberId) : m.role === 'teacher';
    })
    .map((m) => m.personId);
}

export interface College {
  enrolments: Enrolment[];
  sessions: Timed[];
  timed: TimedSeries[];
}

/** The sessions ahead of every course that shares somebody with this one, with who must be at each. */
export async function collegeAround(db: Db, courseId: string, now: number): Promise<College> {
  const enrolments = await rows<Enrolment>(db, ENROLMENTS, [courseId]);
  const courses = [...new Set([courseId, ...enrolments.map((e) => e.courseId)])];
  const sessions = (await rows<Timed & { leads: unknown }>(db, SESSIONS, [courses, now])).map((s) => ({
    ...s,
    leads: json<string[]>(s.leads),
  }));
  const byCourse = byCourseOf(enrolments);
  const bySeries = new Map<string, Timed[]>();
  for (const s of sessions) bySeries.set(s.seriesId, [...(bySeries.get(s.seriesId) ?? []), s]);
  const timed = [...bySeries].map(([id, own]) => ({
    id,
    people: peopleOf(own[0]!, byCourse.get(own[0]!.courseId) ?? []),
    sessions: own,
  }));
  return { enrolments, sessions, timed };
}

function byCourseOf(enrolments: Enrolment[]): Map<string, Enrolment[]> {
  const map = new Map<string, Enrolment[]>();
  for (const e of enrolments) {
    const own = map.get(e.courseId);
    if (own) own.push(e);
    else map.set(e.courseId, [e]);
  }
  return map;
}

/** The clashes of a course's sessions ahead, with names: teacher, co-teacher, student, and two behind one link. */
export async function clashesIn(
  db: Db,
  courseId: string,
  now: number,
): Promise<(NamedClash & { seriesId: string })[]> {
  const { enrolments, sessions, timed } = await collegeAround(db, courseId, now);
  const mine = new Set(sessions.filter((s) => s.courseId === courseId).map((s) => s.seriesId));
  const people = new Map(enrolments.map((e) => [e.personId, e.name]));
  const teaching = new Set(enrolments.filter((e) => e.role !== 'student').map((e) => e.personId));
  const at = new Map(sessions.map((s) => [`${s.seriesId}/${s.startsAt}`, s]));
  return clashesOf(timed)
    .filter((c) => mine.has(c.a.series) || mine.has(c.b.series))
    .map((c) => {
      const [own, other] = mine.has(c.a.series) ? [c.a, c.b] : [c.b, c.a];
      const session = at.get(`${own.series}/${own.startsAt}`)!;
      const with_ = at.get(`${other.series}/${other.startsAt}`)!;
      return {
        seriesId: own.series,
        sessionId: session.id,
        seriesTitle: session.title,
        startsAt: session.startsAt,
        other: { course: with_.code, title: with_.title, startsAt: with_.startsAt, endsAt: with_.endsAt },
        minutes: c.minutes,
        people: c.people.map((id) => ({ name: people.get(id) ?? '', teaches: teaching.has(id) })),
        oneLink:
          with_.courseId === courseId &&
          (session.group === null || with_.group === null || session.group === with_.group),
      };
    });
}

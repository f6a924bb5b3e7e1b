import type { NamedClash } from '@nimble-bell/core/api';
import { clashesOf, type TimedSeries } from '@nimble-bell/core/clashes';
import { json, type Db } from '../db/pool';
import { enrolmentsAround, timedSessions, type Enrolment, type Timed } from './store';

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
  const enrolments = await enrolmentsAround(db, courseId);
  const courses = [...new Set([courseId, ...enrolments.map((e) => e.courseId)])];
  const sessions = (await timedSessions(db, courses, now)).map((s) => ({
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

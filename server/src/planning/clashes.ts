import type { NamedClash } from '@nimble-bell/core/api';
import { clashesOf, type TimedSeries } from '@nimble-bell/core/clashes';
import type { Db } from '../db/pool';
import {
  busySeries,
  busyTimes,
  enrolmentsAround,
  type BusySeries,
  type BusyTime,
  type Enrolment,
} from './store';

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

/** A series with the sessions that it has ahead, by start, and who must be at them. */
interface Busy extends BusySeries, TimedSeries {
  sessions: BusyTime[];
}

export interface College {
  enrolments: Enrolment[];
  timed: Busy[];
}

/** The sessions ahead of every course that shares somebody with this one, with who must be at each. */
export async function collegeAround(db: Db, courseId: string, now: number): Promise<College> {
  const enrolments = await enrolmentsAround(db, courseId);
  const courses = [...new Set([courseId, ...enrolments.map((e) => e.courseId)])];
  const [series, times] = await Promise.all([busySeries(db, courses), busyTimes(db, courses, now)]);
  const byCourse = byCourseOf(enrolments);
  const bySeries = new Map<string, Busy>(
    series.map((r) => [r.id, { ...r, people: peopleOf(r, byCourse.get(r.courseId) ?? []), sessions: [] }]),
  );
  for (const time of times) bySeries.get(time.seriesId)?.sessions.push(time);
  return { enrolments, timed: [...bySeries.values()].filter((r) => r.sessions.length > 0) };
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
  const { enrolments, timed } = await collegeAround(db, courseId, now);
  const byId = new Map(timed.map((r) => [r.id, r]));
  const isMine = (series: string) => byId.get(series)!.courseId === courseId;
  const people = new Map(enrolments.map((e) => [e.personId, e.name]));
  const teaching = new Set(enrolments.filter((e) => e.role !== 'student').map((e) => e.personId));
  const timeOf = ({ series, startsAt }: { series: string; startsAt: number }) =>
    byId.get(series)!.sessions.find((s) => s.startsAt === startsAt)!;
  return clashesOf(timed, isMine).map((c) => {
    const [own, other] = isMine(c.a.series) ? [c.a, c.b] : [c.b, c.a];
    const [mine, theirs] = [byId.get(own.series)!, byId.get(other.series)!];
    return {
      seriesId: own.series,
      sessionId: timeOf(own).id,
      seriesTitle: mine.title,
      startsAt: own.startsAt,
      other: {
        course: theirs.code,
        title: theirs.title,
        startsAt: other.startsAt,
        endsAt: timeOf(other).endsAt,
      },
      minutes: c.minutes,
      people: c.people.map((id) => ({ name: people.get(id) ?? '', teaches: teaching.has(id) })),
      oneLink:
        theirs.courseId === courseId &&
        (mine.group === null || theirs.group === null || mine.group === theirs.group),
    };
  });
}

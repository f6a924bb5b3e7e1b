import type { BellTimes, Role, MemberScope } from '@nimble-bell/core/api';
import { periodsFor, type CalendarEntry } from '@nimble-bell/core/calendar';
import { teaches } from '@nimble-bell/core/limits';
import { telephoneWords } from '@nimble-bell/core/mail';
import type { Context } from '../context';
import {
  coursesByIds,
  seriesOfCourses,
  sessionsOfCourses,
  type CourseRow,
  type SeriesRow,
  type SessionRow,
} from '../courses/store';
import type { Db } from '../db/pool';
import { isFor, seriesTarget, targetOf } from '@nimble-bell/core/roster';
import { bellTimesOf } from '../terms/store';
import { sequencesSent } from './store';
import { entryKey, uidOf } from './uid';

/** A course's plan as calendars and letters are made from it. */
export interface CoursePlan {
  course: CourseRow;
  series: SeriesRow[];
  sessions: SessionRow[];
  bells: BellTimes[];
}

export const planOf = async (db: Db, courseId: string): Promise<CoursePlan | null> =>
  (await plansOf(db, [courseId])).get(courseId) ?? null;

/** The plans of several courses, by course: as many questions as for one. */
export async function plansOf(db: Db, ids: readonly string[]): Promise<Map<string, CoursePlan>> {
  if (!ids.length) return new Map();
  const [courses, series, sessions, bells] = await Promise.all([
    coursesByIds(db, ids),
    seriesOfCourses(db, ids),
    sessionsOfCourses(db, ids),
    bellTimesOf(db),
  ]);
  const own = <T extends { courseId: string }>(all: readonly T[]) => {
    const byCourse = new Map<string, T[]>();
    for (const one of all) {
      const list = byCourse.get(one.courseId);
      if (list) list.push(one);
      else byCourse.set(one.courseId, [one]);
    }
    return byCourse;
  };
  const [ownSeries, ownSessions] = [own(series), own(sessions)];
  return new Map(
    courses.map((course) => [
      course.id,
      { course, series: ownSeries.get(course.id) ?? [], sessions: ownSessions.get(course.id) ?? [], bells },
    ]),
  );
}

export interface CalendarOwner {
  role: Role;
  group: string | null;
  scope: MemberScope | null;
  link: string;
  /** Their PIN on the course's telephone line. */
  pin: string | null;
  /** What only their own entries say. */
  calendarSecret: string | null;
}

/** An entry with the key it is known by in the product. */
export interface KeyedEntry {
  key: string;
  entry: CalendarEntry;
}

/**
 * What a member's calendar holds of their course: an entry a series with dates, drafts for those who teach only. A
 * second session of a series on one date is an entry of its own: a date names one session of an entry.
 */
export function entriesOf(plan: CoursePlan, owner: CalendarOwner, origin: string, now: number): KeyedEntry[] {
  const { course, series, sessions, bells } = plan;
  const url = teaches(owner.role) ? `${origin}/course/${course.id}/teach` : `${origin}/in/${owner.link}`;
  const telephone = telephoneWords(course.telephone, owner.pin);
  return series
    .filter((s) => s.pattern)
    .flatMap((s) => {
      const whole = isFor(seriesTarget(s), owner);
      const own = sessions.filter((x) => x.seriesId === s.id && isFor(targetOf(x), owner));
      if (!whole && !own.length) return [];
      const entryFor = (key: string, some: SessionRow[]): KeyedEntry => ({
        key,
        entry: {
          uid: uidOf(key, owner.calendarSecret),
          sequence: s.sequence,
          stamp: now,
          title: `${course.code} ${s.title}`,
          description: telephone ? `Enter here: ${url}\n${telephone}` : `Enter here: ${url}`,
          url,
          term: course.term,
          pattern: s.pattern!,
          periods: periodsFor(s.pattern!, bells),
          sessions: some,
        },
      });
      return [
        entryFor(
          entryKey(s.id, null),
          own.filter((x) => x.take === 0),
        ),
        ...own.filter((x) => x.take > 0).map((x) => entryFor(entryKey(s.id, x), [x])),
      ];
    });
}

/** What somebody's calendar holds of all these courses of theirs. */
export async function entriesFor(
  ctx: Context,
  members: readonly (CalendarOwner & { id: string; courseId: string })[],
): Promise<CalendarEntry[]> {
  const courses = members.map((m) => m.courseId);
  const ids = members.map((m) => m.id);
  const [plans, sent] = await Promise.all([plansOf(ctx.db, courses), sequencesSent(ctx.db, ids)]);
  return members.flatMap((m) =>
    entriesOf(plans.get(m.courseId)!, m, ctx.config.origin, ctx.now()).map(({ key, entry }) => ({
      ...entry,
      // One entry has one SEQUENCE, by letter and by feed.
      sequence: Math.max(entry.sequence, sent.get(`${m.id} ${key}`) ?? 0),
    })),
  );
}

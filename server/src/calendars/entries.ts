import { periodsFor, type CalendarEntry } from '@nimble-bell/core/calendar';
import { teaches } from '@nimble-bell/core/limits';
import type { MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, seriesOf, sessionsOfCourse } from '../courses/store';
import { isFor } from '../roster/store';
import { bellTimesOf } from '../terms/store';

/** What a member's calendar holds of their course: an entry a series with dates, drafts for those who teach only. */
export async function entriesFor(
  ctx: Context,
  member: MemberRow & { link: string },
): Promise<CalendarEntry[]> {
  const course = (await courseById(ctx.db, member.courseId))!;
  const [series, sessions, bells] = await Promise.all([
    seriesOf(ctx.db, course.id),
    sessionsOfCourse(ctx.db, course.id),
    bellTimesOf(ctx.db),
  ]);
  const url = teaches(member.role)
    ? `${ctx.config.origin}/course/${course.id}/teach`
    : `${ctx.config.origin}/in/${member.link}`;
  return series
    .filter((s) => s.pattern && isFor({ group: s.group, published: s.publishedAt !== null }, member))
    .map((s) => ({
      uid: `${s.id}@nimble-bell`,
      sequence: s.sequence,
      stamp: ctx.now(),
      title: `${course.code} ${s.title}`,
      description: `Enter here: ${url}`,
      url,
      term: course.term,
      pattern: s.pattern!,
      periods: periodsFor(s.pattern!, bells),
      sessions: sessions.filter((x) => x.seriesId === s.id),
    }));
}

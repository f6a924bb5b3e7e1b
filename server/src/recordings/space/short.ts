import { bytesAMinute, spaceAhead, toRecord, type SpaceForecast } from '@nimble-bell/core/recording';
import { dateIn, toEpochDay } from '@nimble-bell/core/calendar';
import { membersWhere } from '../../accounts/store';
import type { Context } from '../../context';
import { courseById, sessionsOfCourse, type CourseRow, type SessionRow } from '../../courses/store';
import { queueLetters } from '../../mail/queue';
import { coursesWithRecordings, recordedOf } from '../store';
import { freeFor } from './free';

/** Those who teach are told again after so many days where it is still so. */
const AGAIN_DAYS = 14;

/** What a course may take yet, and what its sessions that are ahead will take of it, by what it took so far. */
export async function spaceFor(
  ctx: Context,
  course: Pick<CourseRow, 'id' | 'recordingPlan'>,
  sessions: readonly SessionRow[],
  now: number,
): Promise<{ free: number; forecast: SpaceForecast }> {
  const known = await recordedOf(ctx.db, course.id);
  const free = await freeFor(ctx, known.bytes);
  const ahead = toRecord(sessions, course.recordingPlan?.automatic ?? false, now);
  return { free, forecast: spaceAhead(ahead, bytesAMinute([known]), free) };
}

/** Tells those who teach a course that the space for its recordings ends before its term does, and on which day. */
export async function warnOfSpace(ctx: Context): Promise<void> {
  const now = ctx.now();
  for (const courseId of await coursesWithRecordings(ctx.db)) {
    const course = await courseById(ctx.db, courseId);
    if (!course) continue;
    const { forecast } = await spaceFor(ctx, course, await sessionsOfCourse(ctx.db, courseId), now);
    if (forecast.endsAt === null) continue;
    const teaching = await membersWhere(ctx.db, "m.course_id = ? AND m.role = 'teacher'", [courseId]);
    await queueLetters(ctx.db, {
      courseId,
      topic: 'space',
      cause: `${courseId}/${Math.floor(toEpochDay(dateIn('UTC', now)) / AGAIN_DAYS)}`,
      members: teaching.map((m) => m.id),
      dueAt: now,
      about: { day: dateIn(course.term.zone, forecast.endsAt) },
    });
  }
}

import { bytesAMinute, spaceAhead, type SpaceForecast } from '@nimble-bell/core/recording';
import { dateIn, toEpochDay } from '@nimble-bell/core/calendar';
import { membersWhere } from '../../accounts/store';
import type { Context } from '../../context';
import { courseById, sessionsOfCourse, type CourseRow, type SessionRow } from '../../courses/store';
import { queueLetters } from '../../mail/queue';
import { coursesWithRecordings, recordingsWhere, type RecordingRow } from '../store';
import { freeFor } from './free';

/** Those who teach are told again after so many days where it is still so. */
const AGAIN_DAYS = 14;

/** What the sessions of a course that are ahead will take of what it may yet, by what it took so far. */
export function forecastOf(
  {
    sessions,
    course,
    known,
  }: { sessions: readonly SessionRow[]; course: CourseRow; known: readonly RecordingRow[] },
  free: number,
  now: number,
): SpaceForecast {
  const ahead = sessions.filter(
    (s) =>
      s.startsAt > now && s.state !== 'cancelled' && (s.record ?? course.recordingPlan?.automatic ?? false),
  );
  return spaceAhead(
    ahead.map((s) => ({ at: s.startsAt, minutes: s.minutes })),
    bytesAMinute(known.map((r) => ({ lengthMs: Number(r.lengthMs), bytes: Number(r.bytes) }))),
    free,
  );
}

/** Tells those who teach a course that the space for its recordings ends before its term does, and on which day. */
export async function warnOfSpace(ctx: Context): Promise<void> {
  const now = ctx.now();
  for (const courseId of await coursesWithRecordings(ctx.db)) {
    const [course, sessions, all, teaching] = await Promise.all([
      courseById(ctx.db, courseId),
      sessionsOfCourse(ctx.db, courseId),
      recordingsWhere(ctx.db, 's.course_id', courseId),
      membersWhere(ctx.db, "m.course_id = ? AND m.role = 'teacher'", [courseId]),
    ]);
    if (!course) continue;
    const known = all.filter((r) => r.state === 'ready');
    const free = await freeFor(
      ctx,
      known.reduce((sum, r) => sum + Number(r.bytes), 0),
    );
    const { endsAt } = forecastOf({ sessions, course, known }, free, now);
    if (endsAt === null) continue;
    await queueLetters(ctx.db, {
      courseId,
      topic: 'space',
      cause: `${courseId}/${Math.floor(toEpochDay(dateIn('UTC', now)) / AGAIN_DAYS)}`,
      members: teaching.map((m) => m.id),
      dueAt: now,
      about: { day: dateIn(course.term.zone, endsAt) },
    });
  }
}

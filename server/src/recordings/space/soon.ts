import { dateIn, toEpochDay } from '@nimble-bell/core/calendar';
import { membersWhere } from '../../accounts/store';
import type { Context } from '../../context';
import { transaction } from '../../db/pool';
import { queueLetters } from '../../mail/queue';
import { coursesWithRecordings, recordingsWhere, type RecordingRow } from '../store';

/** So long before it goes those who teach are told, days. */
export const NOTICE_DAYS = 14;

/** Recordings whose last day is near, by that day. */
export function leavingSoon(
  all: readonly RecordingRow[],
  now: number,
): { day: string; recordings: RecordingRow[] }[] {
  const today = toEpochDay(dateIn('UTC', now));
  const days = new Map<string, RecordingRow[]>();
  for (const row of all) {
    const day = row.plan?.keepUntil;
    if (!day || row.state !== 'ready' || row.takenAt) continue;
    const left = toEpochDay(day) - today;
    if (left < -1 || left > NOTICE_DAYS) continue;
    days.set(day, [...(days.get(day) ?? []), row]);
  }
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, recordings]) => ({ day, recordings }));
}

/** Tells those who teach a course, once for each day, that recordings go then. */
export async function warnOfLeaving(ctx: Context): Promise<void> {
  for (const courseId of await coursesWithRecordings(ctx.db)) {
    const soon = leavingSoon(await recordingsWhere(ctx.db, 's.course_id', courseId), ctx.now());
    if (!soon.length) continue;
    const teaching = await membersWhere(ctx.db, "m.course_id = ? AND m.role = 'teacher'", [courseId]);
    await transaction(ctx.db, async (db) => {
      for (const { day, recordings } of soon)
        await queueLetters(db, {
          courseId,
          topic: 'leaving',
          cause: `${courseId}/${day}`,
          members: teaching.map((m) => m.id),
          dueAt: ctx.now(),
          about: { day, count: recordings.length },
        });
    });
  }
}

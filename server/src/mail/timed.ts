import { membersWhere } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, sessionsOfCourse } from '../courses/store';
import { rows, transaction } from '../db/pool';
import { isFor, targetOf } from '../roster/store';
import { invitedOf, queueLetters } from './queue';

const EVERY_MS = 5000;
const MINUTE = 60_000;

/** Looks now and then which reminders are due. Their keys make looking twice harmless. */
export function keepReminding(ctx: Context): NodeJS.Timeout {
  return setInterval(() => {
    remindAll(ctx).catch((error: unknown) => ctx.log.error(error));
  }, EVERY_MS);
}

export async function remindAll(ctx: Context): Promise<number> {
  const now = ctx.now();
  const due = await rows<{ id: string }>(
    ctx.db,
    `SELECT DISTINCT c.id FROM courses c JOIN sessions s ON s.course_id = c.id
      WHERE c.reminders <> '[]' AND s.state IN ('planned', 'moved') AND s.starts_at > ? AND s.starts_at < ?`,
    [now, now + 14 * 24 * 60 * MINUTE],
  );
  let queued = 0;
  for (const { id } of due) queued += await remindCourse(ctx, id, now);
  return queued;
}

/** A session's time is in the cause: moved, it is reminded of anew, and an older reminder has nothing left to say. */
async function remindCourse(ctx: Context, courseId: string, now: number): Promise<number> {
  return transaction(ctx.db, async (db) => {
    const course = (await courseById(db, courseId))!;
    const ahead = (await sessionsOfCourse(db, courseId)).filter(
      (s) => s.startsAt > now && (s.state === 'planned' || s.state === 'moved'),
    );
    let queued = 0;
    let people: Awaited<ReturnType<typeof membersWhere>> | null = null;
    for (const session of ahead)
      for (const minutes of course.reminders) {
        const at = session.startsAt - minutes * MINUTE;
        // One that fell due long before anybody could set it is not made up for.
        if (at > now || now - at > Math.min(minutes, 60) * MINUTE) continue;
        people ??= await membersWhere(db, "m.course_id = ? AND m.role IN ('student', 'guest')", [courseId]);
        const invited = await invitedOf(db, courseId);
        queued += await queueLetters(db, {
          courseId,
          topic: 'reminder',
          cause: `${session.id}-${session.startsAt}-${minutes}`,
          members: people.filter((m) => invited.has(m.id) && isFor(targetOf(session), m)).map((m) => m.id),
          dueAt: now,
          about: { session: session.id, startsAt: session.startsAt },
        });
      }
    return queued;
  });
}

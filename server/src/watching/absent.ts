import { isExpired, mayWatch, watchTimes } from '@nimble-bell/core/recording';
import { markOf, wasThere } from '@nimble-bell/core/roll';
import { membersWhere } from '../accounts/store';
import type { Context } from '../context';
import { courseById } from '../courses/store';
import { transaction } from '../db/pool';
import { queueLetters } from '../mail/queue';
import { recordingsWhere } from '../recordings/store';
import { rollLinesWhere } from '../sessions/store';

/**
 * Those who were absent and may watch are told, once, that there is something to watch, each with their own link; where the
 * course wishes it all the others too.
 */
export async function tellAbsent(ctx: Context, recording: string): Promise<number> {
  const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
  if (!row || row.state !== 'ready') return 0;
  const [course, lines, members] = await Promise.all([
    courseById(ctx.db, row.courseId),
    rollLinesWhere(ctx.db, "l.session_id = ? AND l.role = 'student'", [row.sessionId]),
    membersWhere(ctx.db, "m.course_id = ? AND m.role = 'student'", [row.courseId]),
  ]);
  if (!course || isExpired(row.plan, course.term.zone, ctx.now())) return 0;
  const absent = new Set(lines.filter((l) => !wasThere(markOf(l.line))).map((l) => l.line.member));
  // Told when they may: it may be some days after class.
  const dueAt = Math.max(ctx.now(), watchTimes(row).from);
  const watching = members.filter((m) => mayWatch(row, m, dueAt)).map((m) => m.id);
  return transaction(ctx.db, async (db) => {
    const tell = (those: string[], there: boolean) =>
      queueLetters(db, {
        courseId: row.courseId,
        topic: 'recording',
        cause: row.id,
        members: those,
        dueAt,
        about: { recording: row.id, session: row.sessionId, ...(there ? { there } : {}) },
      });
    const told = await tell(
      watching.filter((m) => absent.has(m)),
      false,
    );
    if (!row.plan?.tellsAll) return told;
    const others = watching.filter((m) => !absent.has(m));
    return told + (await tell(others, true));
  });
}

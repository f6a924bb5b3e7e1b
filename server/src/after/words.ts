import { Router } from 'express';
import { WordInput } from '@nimble-bell/core/api';
import { mayWatch } from '@nimble-bell/core/recording';
import { asked } from '../accounts/principal';
import { membersWhere, type MemberRow } from '../accounts/store';
import { newId, type Context } from '../context';
import { AppError, parse } from '../errors';
import { queueLetters } from '../mail/queue';
import { recordingsWhere } from '../recordings/store';
import { once } from '../requests/once';

/** A word of somebody who teaches to some of the class: to who is slipping, or who missed a class and its recording. */
export function wordRoutes(ctx: Context): Router {
  const router = Router();

  router.post('/courses/:course/words', async (req, res) => {
    const me = await asked(ctx, req, 'teach');
    const { members, text, recording } = parse(WordInput, req.body);
    // Who is here for some of it alone does not write to all.
    if (me.scope) throw new AppError('forbidden');
    const found = await recipients(ctx, me.courseId, new Set(members));
    if (recording) {
      const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
      if (row?.courseId !== me.courseId || !found.every((m) => mayWatch(row, m, ctx.now())))
        throw new AppError('not-found', 'Not all of them can watch this recording.');
    }
    const count = await once(ctx, req, (db) =>
      queueLetters(db, {
        courseId: me.courseId,
        topic: 'word',
        cause: newId(),
        members: found.map((m) => m.id),
        dueAt: ctx.now(),
        about: { text, by: me.name, ...(recording ? { recording } : {}) },
      }),
    );
    res.status(201).json({ count });
  });
  return router;
}

/** Students of the course. */
async function recipients(ctx: Context, course: string, ids: ReadonlySet<string>): Promise<MemberRow[]> {
  const found = await membersWhere(ctx.db, "m.course_id = ? AND m.role = 'student' AND m.id IN (?)", [
    course,
    [...ids],
  ]);
  if (found.length !== ids.size) throw new AppError('not-found', 'Not all of them are on the class list.');
  return found;
}

import { Router } from 'express';
import { NoticeInput } from '@nimble-bell/core/api';
import { asked } from '../accounts/principal';
import { newId, type Context } from '../context';
import { type Db } from '../db/pool';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { queueLetters } from '../mail/queue';
import { changeNotice, deleteNotice, insertNotice, noticesFor } from './store';
import { membersWhere } from '../accounts/store';
import { invitedOf } from '../mail/store';

const mailIt = async (db: Db, courseId: string, notice: string, dueAt: number) => {
  const invited = await invitedOf(db, courseId);
  const people = await membersWhere(db, "m.course_id = ? AND m.role IN ('student', 'assistant')", [courseId]);
  return queueLetters(db, {
    courseId,
    topic: 'notice',
    cause: notice,
    members: people.filter((m) => invited.has(m.id) && !m.scope).map((m) => m.id),
    dueAt,
    about: { notice },
  });
};

export function noticeRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/courses/:course/notices', async (req, res) => {
    res.json(await noticesFor(ctx, ctx.db, await asked(ctx, req, 'member')));
  });

  router.post('/courses/:course/notices', async (req, res) => {
    const member = await asked(ctx, req, 'teach');
    const input = parse(NoticeInput, req.body);
    const id = newId();
    const made = await once(ctx, req, async (db) => {
      const now = ctx.now();
      const from = input.from ?? now;
      await insertNotice(db, {
        id,
        courseId: member.courseId,
        title: input.title,
        body: input.body,
        from,
        until: input.until,
        pinned: input.pinned,
        mailedAt: input.mail ? now : null,
        by: member.name,
        at: now,
      });
      const mailed = input.mail ? await mailIt(db, member.courseId, id, Math.max(from, now)) : 0;
      return { id, mailed };
    });
    res.status(201).json(made);
  });

  changeRoutes(router, ctx);
  return router;
}

function changeRoutes(router: Router, ctx: Context) {
  /** Set right afterwards: what was mailed is not mailed again. */
  router.put('/courses/:course/notices/:notice', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const input = parse(NoticeInput, req.body);
    const result = await changeNotice(ctx.db, {
      title: input.title,
      body: input.body,
      from: input.from,
      until: input.until,
      pinned: input.pinned,
      id: req.params.notice as string,
      courseId,
    });
    if (!result.affectedRows) throw new AppError('not-found');
    res.json({});
  });

  router.delete('/courses/:course/notices/:notice', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const result = await deleteNotice(ctx.db, req.params.notice as string, courseId);
    if (!result.affectedRows) throw new AppError('not-found');
    res.json({});
  });
}

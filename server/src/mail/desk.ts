import type { NoticeNode } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { planOf } from '../calendars/entries';
import { json, type Db } from '../db/pool';
import { noticeBlocks } from '../notices/blocks';
import type { Desk } from './compose';
import { mailedNotices, teachersNames } from './store';

/** Reads what the letters of a course are composed from. */
export async function deskFor(ctx: Context, db: Db, courseId: string): Promise<Desk | null> {
  const [plan, teachers, notices] = await Promise.all([
    planOf(db, courseId),
    teachersNames(db, courseId),
    mailedNotices(db, courseId),
  ]);
  if (!plan) return null;
  return {
    plan,
    teachers: teachers.map((t) => t.name),
    origin: ctx.config.origin,
    organizer: ctx.config.organizer,
    now: ctx.now(),
    notices: new Map(
      notices.map((n) => [
        n.id,
        (member) => ({ title: n.title, blocks: noticeBlocks(json<NoticeNode>(n.body), plan, member) }),
      ]),
    ),
  };
}

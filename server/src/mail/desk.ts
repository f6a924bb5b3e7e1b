import type { NoticeNode } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { planOf } from '../calendars/entries';
import { json, rows, type Db } from '../db/pool';
import { noticeBlocks } from '../notices/blocks';
import type { Desk } from './compose';

/** Reads what the letters of a course are composed from. */
export async function deskFor(ctx: Context, db: Db, courseId: string): Promise<Desk | null> {
  const [plan, teachers, notices] = await Promise.all([
    planOf(db, courseId),
    rows<{ name: string }>(
      db,
      `SELECT m.name FROM members m JOIN people p ON p.id = m.person_id
        WHERE m.course_id = ? AND m.role = 'teacher' ORDER BY m.scope IS NULL DESC, m.name`,
      [courseId],
    ),
    rows<{ id: string; title: string; body: unknown }>(
      db,
      'SELECT id, title, body FROM notices WHERE course_id = ? AND mailed_at IS NOT NULL',
      [courseId],
    ),
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

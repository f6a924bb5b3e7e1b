import type { NoticeNode } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { plansOf } from '../calendars/entries';
import { json, type Db } from '../db/pool';
import { noticeBlocks } from '../notices/blocks';
import type { Desk } from './compose';
import { mailedNotices, stylesOf, teachersNames } from './store';

/** Reads what the letters of a course are composed from. */
export const deskFor = async (ctx: Context, db: Db, courseId: string): Promise<Desk | null> =>
  (await desksFor(ctx, db, [courseId])).get(courseId) ?? null;

/** The same of several courses, by course: as many questions as for one. */
export async function desksFor(ctx: Context, db: Db, courses: readonly string[]): Promise<Map<string, Desk>> {
  if (!courses.length) return new Map();
  const [plans, teachers, notices, styles] = await Promise.all([
    plansOf(db, courses),
    teachersNames(db, courses),
    mailedNotices(db, courses),
    stylesOf(db, courses),
  ]);
  return new Map(
    [...plans].map(([course, plan]): [string, Desk] => [
      course,
      {
        plan,
        teachers: teachers.filter((t) => t.course === course).map((t) => t.name),
        origin: ctx.config.origin,
        organizer: ctx.config.organizer,
        now: ctx.now(),
        styles,
        notices: new Map(
          notices
            .filter((n) => n.course === course)
            .map((n) => [
              n.id,
              (member) => ({ title: n.title, blocks: noticeBlocks(json<NoticeNode>(n.body), plan, member) }),
            ]),
        ),
      },
    ]),
  );
}

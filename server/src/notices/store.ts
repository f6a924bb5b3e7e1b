import type { DayPlan, NoticeInfo, NoticeNode } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import { planOf } from '../calendars/entries';
import type { Context } from '../context';
import { json, rows, run, type Db } from '../db/pool';
import { materialsFor } from '../materials/store';
import { sessionsOfDay } from './blocks';
import type { MemberRow } from '../accounts/store';

/** The dates that a notice's plan blocks speak of. */
function datesIn(node: NoticeNode): string[] {
  const own = node.type === 'dayPlan' && node.attrs?.date ? [node.attrs.date] : [];
  return [...own, ...(node.content ?? []).flatMap(datesIn)];
}

/** The notices that this member may read now, pinned ones first; those who teach see what is to come as well. */
export async function noticesFor(ctx: Context, db: Db, member: MemberRow): Promise<NoticeInfo[]> {
  const now = ctx.now();
  const all = teaches(member.role);
  const found = await rows<Omit<NoticeInfo, 'days' | 'body' | 'pinned'> & { body: unknown; pinned: number }>(
    db,
    `SELECT id, title, body, visible_from AS \`from\`, visible_until AS until, pinned, mailed_at AS mailedAt, made_by AS \`by\`, at
       FROM notices WHERE course_id = ? AND (? OR (visible_from <= ? AND (visible_until IS NULL OR visible_until > ?)))
      ORDER BY pinned DESC, visible_from DESC LIMIT 100`,
    [member.courseId, all, now, now],
  );
  if (!found.length || (member.scope && !all)) return [];
  const [plan, materials] = await Promise.all([planOf(db, member.courseId), materialsFor(ctx, db, member)]);
  const dayOf = (date: string): DayPlan => {
    const sessions = sessionsOfDay(plan!, date, member);
    const ids = new Set(sessions.map((s) => s.id));
    return {
      date,
      sessions: sessions.map((s) => ({
        id: s.id,
        title: s.title ? `${s.seriesTitle}: ${s.title}` : s.seriesTitle,
        startsAt: s.startsAt,
        endsAt: s.endsAt,
        cancelled: s.state === 'cancelled',
      })),
      materials: materials.filter((m) => m.sessionId !== null && ids.has(m.sessionId)),
    };
  };
  return found.map((n) => {
    const body = json<NoticeNode>(n.body);
    return { ...n, body, pinned: Boolean(n.pinned), days: [...new Set(datesIn(body))].map(dayOf) };
  });
}

export const insertNotice = (
  db: Db,
  {
    id,
    courseId,
    title,
    body,
    from,
    until,
    pinned,
    mailedAt,
    by,
    at,
  }: {
    id: string;
    courseId: string;
    title: string;
    body: unknown;
    from: number;
    until: null | number;
    pinned: boolean;
    mailedAt: null | number;
    by: string;
    at: number;
  },
) =>
  run(
    db,
    `INSERT INTO notices (id, course_id, title, body, visible_from, visible_until, pinned, mailed_at, made_by, at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [id, courseId, title, JSON.stringify(body), from, until, pinned, mailedAt, by, at],
  );

export const changeNotice = (
  db: Db,
  {
    title,
    body,
    from,
    until,
    pinned,
    id,
    courseId,
  }: {
    title: string;
    body: unknown;
    from: null | number;
    until: null | number;
    pinned: boolean;
    id: string;
    courseId: string;
  },
) =>
  run(
    db,
    `UPDATE notices SET title = ?, body = ?, visible_from = COALESCE(?, visible_from), visible_until = ?, pinned = ?
        WHERE id = ? AND course_id = ?`,
    [title, JSON.stringify(body), from, until, pinned, id, courseId],
  );

export const deleteNotice = (db: Db, id: string, courseId: string) =>
  run(db, 'DELETE FROM notices WHERE id = ? AND course_id = ?', [id, courseId]);

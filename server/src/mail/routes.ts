import { Router, type Request } from 'express';
import type { Delivery, InvitationPreview } from '@nimble-bell/core/api';
import { principalOf, requireRight, type MemberRow, type Right } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, sessionsOfCourse } from '../courses/store';
import { json, rows } from '../db/pool';
import { AppError } from '../errors';
import { queueInvitations } from './invite';
import { invitationFor } from './letter';

const RECIPIENTS = `SELECT m.id, m.course_id AS courseId, m.person_id AS personId, m.role, m.group_name AS \`group\`,
                           m.link_code AS link, p.name, p.email, p.zone
                      FROM members m JOIN people p ON p.id = m.person_id`;

export const recipients = (ctx: Context, where: string, value: string) =>
  rows<MemberRow & { link: string }>(ctx.db, `${RECIPIENTS} WHERE ${where} = ? ORDER BY p.name`, [value]);

export function mailRoutes(ctx: Context): Router {
  const router = Router();
  const asked = async (req: Request, right: Right) =>
    requireRight(ctx, await principalOf(ctx, req.headers), req.params.course as string, right);
  const students = async (course: string) =>
    (await recipients(ctx, 'm.course_id', course)).filter((m) => m.role === 'student');

  router.get('/courses/:course/invitations/preview', async (req, res) => {
    const { courseId } = await asked(req, 'teach');
    const course = (await courseById(ctx.db, courseId))!;
    const first = (await students(courseId))[0];
    if (!first) throw new AppError('nobody-to-invite');
    const { subject, text } = await invitationFor(ctx, course, first);
    const preview: InvitationPreview = { name: first.name, subject, text };
    res.json(preview);
  });

  /** Queues one invitation for each student who has none yet. The key makes a second press harmless. */
  router.post('/courses/:course/invitations', async (req, res) => {
    const { courseId } = await asked(req, 'plan');
    const people = await students(courseId);
    if (people.length === 0) throw new AppError('nobody-to-invite');
    const sessions = await sessionsOfCourse(ctx.db, courseId);
    if (!sessions.some((s) => s.published)) throw new AppError('nothing-planned');
    const queued = await queueInvitations(ctx.db, courseId, ctx.now());
    res.status(202).json({ queued });
  });

  router.get('/courses/:course/deliveries', async (req, res) => {
    const { courseId } = await asked(req, 'teach');
    const found = await rows<{
      id: number;
      member: string;
      name: string;
      payload: unknown;
      state: string;
      at: number;
      fault: string | null;
    }>(
      ctx.db,
      `SELECT j.id, j.member_id AS member, p.name, j.payload, j.state, COALESCE(j.done_at, j.due_at) AS at, j.fault
         FROM jobs j JOIN members m ON m.id = j.member_id JOIN people p ON p.id = m.person_id
        WHERE j.course_id = ? AND j.kind = 'mail' ORDER BY p.name, j.id`,
      [courseId],
    );
    const deliveries: Delivery[] = found.map(({ payload, state, ...d }) => ({
      ...d,
      subject: json<{ letter: string }>(payload).letter,
      state: state === 'done' ? 'sent' : state === 'failed' ? 'failed' : 'queued',
    }));
    res.json(deliveries);
  });
  return router;
}

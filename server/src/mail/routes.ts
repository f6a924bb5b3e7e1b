import { Router, type Request } from 'express';
import {
  InvitationInput,
  InvitationTemplate,
  InviteBefore,
  Reminders,
  TelephoneInput,
  type Delivery,
  type InvitationPreview,
  type LetterState,
  type LetterTopic,
  type Told,
} from '@nimble-bell/core/api';
import { unknownFields } from '@nimble-bell/core/mail';
import type { PoolConnection } from 'mysql2/promise';
import { z } from 'zod';
import { asked, principalOf } from '../accounts/principal';
import { newId, type Context } from '../context';
import { transaction } from '../db/pool';
import { takeTurn } from '../courses/turn';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { isFor, seriesTarget } from '@nimble-bell/core/roster';
import { ownMembers } from '../roster/store';
import { compose } from './compose';
import { deskFor } from './desk';
import { lettersOf } from './foretell';
import { messageIdOf, queueLetters } from './queue';
import { setTelephone } from './telephone';
import { membersWhere, type MemberRow } from '../accounts/store';
import {
  deliveriesOf,
  invitedOf,
  lettersForUpdate,
  queueAgain,
  setAside,
  writeInvitation,
  writeInviteBefore,
  writeReminders,
} from './store';

const Resend = z.object({ letters: z.array(z.int()).min(1).max(2000) });
const PreviewInput = z.object({
  member: z.string().max(20).nullable().default(null),
  template: InvitationTemplate.nullable().default(null),
});

const template = (input: InvitationTemplate) => {
  const unknown = unknownFields(`${input.subject} ${input.text}`);
  if (unknown.length)
    throw new AppError('invalid', `There is no field {${unknown[0]}}.`, [
      { path: 'text', message: `There is no field {${unknown[0]}}.` },
    ]);
  return input;
};

/** The course's telephone line. What those invited then get can be read first. */
const telephone = async (ctx: Context, req: Request) => {
  const { courseId } = await asked(ctx, req, 'plan');
  const { number } = parse(TelephoneInput, req.body);
  const set = (db: PoolConnection) => setTelephone(db, courseId, number, ctx.now() + ctx.config.gatherMs);
  return { courseId, set };
};

export function mailRoutes(ctx: Context): Router {
  const router = Router();

  invitationRoutes(router, ctx);

  router.post('/courses/:course/telephone/letters', async (req, res) => {
    const { courseId, set } = await telephone(ctx, req);
    res.json(await lettersOf(ctx, courseId, set));
  });
  router.put('/courses/:course/telephone', async (req, res) => {
    const { set } = await telephone(ctx, req);
    const told: Told[] = await transaction(ctx.db, set);
    res.json({ told });
  });

  router.put('/courses/:course/reminders', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { minutes } = parse(Reminders, req.body);
    await writeReminders(ctx.db, minutes, courseId);
    res.json({});
  });

  deliveryRoutes(router, ctx);

  return router;
}

const stateOf = (state: string): LetterState =>
  state === 'done' ? 'sent' : state === 'failed' || state === 'void' ? state : 'queued';

/** The invitation: its words, what one person gets, and to whom it goes. */
function invitationRoutes(router: Router, ctx: Context) {
  /** What one person gets, by the course's template or by a draft of it. */
  router.post('/courses/:course/invitations/preview', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const input = parse(PreviewInput, req.body);
    const students = await membersWhere(ctx.db, "m.course_id = ? AND m.role = 'student'", [courseId]);
    const member = students.find((m) => m.id === input.member) ?? students[0];
    if (!member) throw new AppError('nobody-to-invite');
    const desk = (await deskFor(ctx, ctx.db, courseId))!;
    const { plan } = desk;
    const invitation = input.template ? template(input.template) : plan.course.invitation;
    const drafted = { ...desk, plan: { ...plan, course: { ...plan.course, invitation } } };
    const { letter, entries } = compose(drafted, member, { topic: 'invitation', about: {} }, new Map());
    const { subject, text, html } = letter!;
    const preview: InvitationPreview = { member: member.id, name: member.name, subject, text, html, entries };
    res.json(preview);
  });

  router.put('/courses/:course/invitation', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { template: input } = parse(z.object({ template: InvitationTemplate.nullable() }), req.body);
    await writeInvitation(ctx.db, input ? JSON.stringify(template(input)) : null, courseId);
    res.json({});
  });

  /** Queues an invitation for each of those chosen, or for everyone who has none yet; then a second press is harmless. */
  router.post('/courses/:course/invitations', async (req, res) => {
    const me = await asked(ctx, req, 'plan');
    const input = parse(InvitationInput, req.body ?? {});
    const queued = await once(ctx, req, async (db) => (await invite(ctx, db, me, input)).queued);
    res.status(202).json({ queued });
  });

  /** The letters that it would queue, as they would leave. */
  router.post('/courses/:course/invitations/letters', async (req, res) => {
    const me = await asked(ctx, req, 'plan');
    const input = parse(InvitationInput, req.body ?? {});
    res.json(await lettersOf(ctx, me.courseId, async (db) => (await invite(ctx, db, me, input)).people));
  });

  /** How long before each session its invitation leaves, and to whom; or that none does. */
  router.put('/courses/:course/invite-before', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { rule } = parse(z.object({ rule: InviteBefore.nullable() }), req.body);
    if (rule?.members) await ownMembers(ctx.db, courseId, rule.members);
    await writeInviteBefore(ctx.db, rule ? JSON.stringify(rule) : null, courseId);
    res.json({});
  });
}

/** Queues the invitations that are asked for, in the caller's transaction. Gives who gets one, and how many are new. */
async function invite(ctx: Context, db: PoolConnection, me: MemberRow, input: InvitationInput) {
  const { courseId } = me;
  await takeTurn(db, courseId);
  const desk = (await deskFor(ctx, db, courseId))!;
  const all = await membersWhere(db, "m.course_id = ? AND m.role <> 'teacher'", [courseId]);
  if (!all.some((m) => m.role === 'student')) throw new AppError('nobody-to-invite');
  if (!desk.plan.series.some((s) => isFor(seriesTarget(s), { role: 'student', group: s.group })))
    throw new AppError('nothing-planned');
  const invited = await invitedOf(db, courseId);
  const chosen = all.filter((m) => {
    if (input.members) return input.members.includes(m.id);
    if (m.role !== 'student') return false;
    return input.groups ? m.group !== null && input.groups.includes(m.group) : !invited.has(m.id);
  });
  const dueAt = Math.max(input.at ?? 0, ctx.now());
  const first = chosen.filter((m) => !invited.has(m.id));
  const again = chosen.filter((m) => invited.has(m.id));
  const order = { courseId, topic: 'invitation' as const, dueAt };
  let queued = await queueLetters(db, { ...order, cause: 'first', members: first.map((m) => m.id) });
  queued += await queueLetters(db, { ...order, cause: newId(), members: again.map((m) => m.id) });
  if (input.copyToMe) await queueLetters(db, { ...order, cause: `copy-${newId()}`, members: [me.id] });
  return { queued, people: chosen.map((m): Told => ({ member: m.id, name: m.name })) };
}

/** What became of letters. */
function deliveryRoutes(router: Router, ctx: Context) {
  router.get('/courses/:course/deliveries', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const found = await deliveriesOf(ctx.db, courseId);
    const deliveries: Delivery[] = found.map(({ bounced, bounce, state, ...d }) => ({
      ...d,
      topic: d.topic as LetterTopic,
      state: bounced === null ? stateOf(state) : 'bounced',
      fault: bounce ?? d.fault,
    }));
    res.json(deliveries);
  });

  /** Sends letters again, as new ones: to those who never got them, or whose address bounced. */
  router.post('/courses/:course/deliveries/resend', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { letters } = parse(Resend, req.body);
    const queued = await once(ctx, req, async (db) => {
      await takeTurn(db, courseId);
      const found = await lettersForUpdate(db, courseId, letters);
      if (found.length < new Set(letters).size) throw new AppError('not-found', 'There is no such letter.');
      const cause = newId();
      // News can have been lost with a letter that bounced: the whole is said again.
      for (const { topic, member, payload } of found) {
        const again = topic === 'update' ? 'invitation' : topic;
        const key = `${again}/${cause}/${member}`;
        await queueAgain(db, {
          topic: again,
          key,
          courseId,
          member,
          payload: typeof payload === 'string' ? payload : JSON.stringify(payload),
          now: ctx.now(),
          messageId: messageIdOf(key),
        });
      }
      return found.length;
    });
    res.status(202).json({ queued });
  });
  /** Letters that came in and could not be dealt with, for those who run the college. */
  router.get('/inbox/set-aside', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'account' || !principal.person.staff) throw new AppError('forbidden');
    res.json(await setAside(ctx.db));
  });
}

import { Router } from 'express';
import { z } from 'zod';
import type { MemberInfo, SessionDetail } from '@nimble-bell/core/api';
import { doorFor, doorRules } from '@nimble-bell/core/door';
import { evolve, isHere, newRoom } from '@nimble-bell/core/room';
import { asked, memberIn, principalOf } from '../accounts/principal';
import type { Context } from '../context';
import { bare, courseById, sessionById, type SessionRow } from '../courses/store';
import { transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { queueLetters } from '../mail/queue';
import { materialsFor } from '../materials/store';
import { recordingsWhere } from '../recordings/store';
import { seenBy } from '../recordings/watchable';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import { membersOf } from '../roster/store';
import { eventsOf } from '../room/store';
import { proofFor } from '../rules/proof';
import { seenAs } from '../rules/seenAs';
import { rollNow } from './roll';
import { heldSegmentsOf } from './store';
import { taught } from './taught';

/** Everyone's answer to a session: the one to it alone, or else the one to its series. */
const repliesTo = (session: SessionRow, members: readonly MemberInfo[]) =>
  members
    .filter((m) => isFor(targetOf(session), m))
    .flatMap((m) => {
      const replies = m.replies.filter((r) => r.seriesId === session.seriesId);
      const reply =
        replies.find((r) => r.date === session.date && r.take === session.take) ??
        replies.find((r) => r.date === null);
      if (!reply) return [];
      const { answer, outdated, verified } = reply;
      return [{ member: m.id, name: m.name, answer, outdated, verified }];
    });

const ProofQuery = z.object({ part: z.coerce.number().int().min(0).max(49).default(0) });
const NudgeInput = z.object({ members: z.array(z.string().max(20)).max(1000).nullable().default(null) });

function limitsRoutes(router: Router, ctx: Context) {
  /** What every student may do in it, and what they read where it is closed. */
  router.get('/sessions/:id/proof', async (req, res) => {
    const { session: row } = await taught(ctx, req);
    const { part } = parse(ProofQuery, req.query);
    res.json(await proofFor(ctx, row, part));
  });

  /** The room as one student has it. */
  router.get('/sessions/:id/as/:member', async (req, res) => {
    const { session: row } = await taught(ctx, req);
    const { part } = parse(ProofQuery, req.query);
    res.json(await seenAs(ctx, row, req.params.member, part));
  });

  /** How the run sheets of a course went. */
  router.get('/courses/:course/held-segments', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    res.json(await heldSegmentsOf(ctx.db, courseId));
  });
}

export function sessionRoutes(ctx: Context): Router {
  const router = Router();

  /** A session as this member may see it; the roll is for those who teach. */
  router.get('/sessions/:id', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    const row = await sessionById(ctx.db, req.params.id);
    if (!row) throw new AppError('not-found');
    const member = await memberIn(ctx, principal, row.courseId);
    if (!isFor(targetOf(row), member)) throw new AppError('forbidden');
    const course = (await courseById(ctx.db, row.courseId))!;
    const teaching = teaches(member.role);
    const [members, recordings] = await Promise.all([
      teaching ? membersOf(ctx.db, row.courseId) : [],
      recordingsWhere(ctx.db, 's.id', row.id),
    ]);
    const detail: SessionDetail = {
      session: bare(row),
      course: { id: course.id, code: course.code, title: course.title },
      role: member.role,
      member: member.id,
      zone: course.term.zone,
      door: doorFor(row, doorRules(row.layers, row.kind), member.role, ctx.now()),
      roll: teaching ? await rollNow(ctx, row) : null,
      replies: teaching ? repliesTo(row, members) : null,
      materials: (await materialsFor(ctx, ctx.db, member)).filter((m) => m.sessionId === row.id),
      recordings: seenBy(ctx, recordings, member),
    };
    res.json(detail);
  });

  limitsRoutes(router, ctx);

  /** A word to those who are not there yet, once a person and session. */
  router.post('/sessions/:id/nudge', async (req, res) => {
    const { session: row } = await taught(ctx, req);
    if (row.state !== 'live') throw new AppError('not-live');
    const { members } = parse(NudgeInput, req.body);
    const room = (await eventsOf(ctx.db, row.id)).reduce(evolve, newRoom());
    const missing = (await membersOf(ctx.db, row.courseId)).filter(
      (m) =>
        (m.role === 'student' || m.role === 'guest') &&
        isFor(targetOf(row), m) &&
        !isHere(room, m.id) &&
        (!members || members.includes(m.id)),
    );
    const queued = await transaction(ctx.db, (db) =>
      queueLetters(db, {
        courseId: row.courseId,
        topic: 'nudge',
        cause: row.id,
        members: missing.map((m) => m.id),
        dueAt: ctx.now(),
        about: { session: row.id, startsAt: row.startsAt },
      }),
    );
    res.status(202).json({ queued, missing: missing.length });
  });
  return router;
}

import { Router } from 'express';
import { z } from 'zod';
import { LocalDate, PlanEdit, UndoInput, type PlanChangeInfo, type PlanOutcome } from '@nimble-bell/core/api';
import { asked, principalOf, requireRight } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, sessionById } from '../courses/store';
import { lettersOf } from '../mail/foretell';
import { json, rehearse, type Db } from '../db/pool';
import { baseOf, stillOn } from '../history/base';
import { takeTurn } from '../courses/turn';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { changePlan, deltasOf } from './change';
import { applyEdit } from './edit';
import { fixFinding } from './fixes';
import { makeUpsFor } from './makeUps';
import { applyDiff, isSpent, reversed, type PlanDiff } from './snapshot/diff';
import type { PoolConnection } from 'mysql2/promise';
import type { MemberRow } from '../accounts/store';
import { takeBack, wayBack } from '../history/undo';
import { snapshot, type Snapshot } from './snapshot/store';
import { changesOf, listSeries, listSession, postSession } from './store';

const NoticeHours = z.coerce
  .number()
  .int()
  .min(0)
  .max(24 * 60)
  .default(48);
const FixInput = z.object({ finding: z.string().min(1).max(200) });

const edited = async (
  ctx: Context,
  db: PoolConnection,
  member: MemberRow,
  edit: PlanEdit,
  { base = null, foreseen = false }: { base?: string | null; foreseen?: boolean } = {},
): Promise<PlanOutcome> => {
  const { courseId } = member;
  const course = await takeTurn(db, courseId);
  const { term } = course;
  const on = await stillOn(db, 'plan_changes', course, base);
  const now = ctx.now();
  const make = () => applyEdit({ db, courseId, term, now }, edit);
  const tellAt = now + ctx.config.gatherMs;
  return changePlan(db, { courseId, term, by: member.name, now, tellAt, on, make, foreseen });
};

const planWayBack = (db: Db, courseId: string, now: Snapshot) =>
  wayBack<PlanDiff>(db, 'plan_changes', courseId, (diff) => isSpent(diff, now));

const snapshotReadOnly = (ctx: Context, course: string) => rehearse(ctx.db, (db) => snapshot(db, course));

export function planningRoutes(ctx: Context): Router {
  const router = Router();

  editRoutes(router, ctx);

  router.get('/courses/:course/plan/history', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const { term } = (await courseById(ctx.db, courseId))!;
    const found = await changesOf(ctx.db, courseId);
    const now = await snapshotReadOnly(ctx, courseId);
    const { entry, spent } = await planWayBack(ctx.db, courseId, now);
    const history: PlanChangeInfo[] = found.map(({ body, ...c }) => {
      const diff = json<PlanDiff>(body);
      // Titles of series that are gone since are in the change itself.
      const was = { ...now, series: new Map(now.series) };
      for (const { before, after } of diff.series) was.series.set((after ?? before)!.id, (after ?? before)!);
      const sessions = deltasOf(diff, was, was, term);
      return { ...c, sessions, undoable: c.id === entry?.id, spent: spent.includes(c.id) };
    });
    res.json(history);
  });

  router.post('/courses/:course/fixes', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const { finding } = parse(FixInput, req.body);
    res.json({ done: await fixFinding(ctx, member, finding) });
  });

  /** Ranked slots to make up for a session. */
  router.get('/sessions/:id/make-ups', async (req, res) => {
    const session = await sessionById(ctx.db, req.params.id);
    const principal = await principalOf(ctx, req.headers);
    if (!session) throw new AppError('not-found');
    await requireRight(ctx, principal, session.courseId, 'plan');
    const week = parse(LocalDate.optional(), req.query.week) ?? null;
    res.json(await makeUpsFor(ctx, session, parse(NoticeHours, req.query.notice), week));
  });

  shownRoutes(router, ctx);
  return router;
}

/** Edits of the plan: previewed, read before they are sent, done, undone. */
function editRoutes(router: Router, ctx: Context) {
  /** What an edit would do: done, told, and taken back. */
  router.post('/courses/:course/plan/preview', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const edit = parse(PlanEdit, req.body);
    res.json(await rehearse(ctx.db, (db) => edited(ctx, db, member, edit, { foreseen: true })));
  });

  /** The letters that an edit would cause, as they would leave. */
  router.post('/courses/:course/plan/letters', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const edit = parse(PlanEdit, req.body);
    res.json(await lettersOf(ctx, member.courseId, async (db) => (await edited(ctx, db, member, edit)).told));
  });

  router.post('/courses/:course/plan', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const edit = parse(PlanEdit, req.body);
    res.status(201).json(await once(ctx, req, (db) => edited(ctx, db, member, edit, { base: baseOf(req) })));
  });

  /** The way back of the latest change that stands; it is a change itself, and told like one. */
  router.post('/courses/:course/plan/undo', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const { change } = parse(UndoInput, req.body);
    const { courseId } = member;
    const outcome = await once(ctx, req, async (db) => {
      const { term } = await takeTurn(db, courseId);
      const way = await planWayBack(db, courseId, await snapshot(db, courseId));
      const latest = await takeBack(db, 'plan_changes', way, change, ctx.now());
      const make = async () => {
        await applyDiff(db, courseId, reversed(latest.body));
        return `Undone: ${latest.words}`;
      };
      return changePlan(db, {
        courseId,
        term,
        by: member.name,
        now: ctx.now(),
        tellAt: ctx.now() + ctx.config.gatherMs,
        make,
        mayBeEmpty: true,
        undoes: change,
      });
    });
    res.json(outcome);
  });
}

/** Where a series or a session is seen: on the college's public page, or by the class. */
function shownRoutes(router: Router, ctx: Context) {
  /** Whether a series stands on the college's public page. */
  router.put('/courses/:course/series/:series/listed', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { listed } = parse(z.object({ listed: z.boolean() }), req.body);
    await listSeries(ctx.db, listed, req.params.series as string, courseId);
    res.json({});
  });

  /** Whether one session does, whatever its series says. */
  router.put('/sessions/:id/listed', async (req, res) => {
    const session = await sessionById(ctx.db, req.params.id);
    const principal = await principalOf(ctx, req.headers);
    if (!session) throw new AppError('not-found');
    await requireRight(ctx, principal, session.courseId, 'plan');
    const { listed } = parse(z.object({ listed: z.boolean() }), req.body);
    await listSession(ctx.db, listed, session.id);
    res.json({});
  });

  /** A capture is posted to the class, or taken back. */
  router.put('/sessions/:id/posted', async (req, res) => {
    const session = await sessionById(ctx.db, req.params.id);
    const principal = await principalOf(ctx, req.headers);
    if (!session) throw new AppError('not-found');
    await requireRight(ctx, principal, session.courseId, 'plan');
    const { posted } = parse(z.object({ posted: z.boolean() }), req.body);
    if (session.kind !== 'capture') throw new AppError('invalid', 'Only a capture is posted.');
    await postSession(ctx.db, posted ? ctx.now() : null, session.id);
    res.json({});
  });
}

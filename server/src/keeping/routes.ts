import { Router } from 'express';
import { z } from 'zod';
import { MoveInput, type Traces } from '@nimble-bell/core/api';
import { carry, countWords, periodsFor } from '@nimble-bell/core/calendar';
import type { PoolConnection } from 'mysql2/promise';
import type { MemberRow } from '../accounts/store';
import { asked } from '../accounts/principal';
import type { Context } from '../context';
import { courseByCode, seriesOf } from '../courses/store';
import { takeTurn } from '../courses/turn';
import { transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { changePlan } from '../planning/change';
import { laySeries } from '../planning/laySeries';
import { writeSeries } from '../planning/snapshot/store';
import { once } from '../requests/once';
import { fitting } from '../reuse/carry';
import { bellTimesOf, termById, termShared } from '../terms/store';
import { deleteCourse, putAway, toTerm, tracesOf } from './store';

/** Where a course is kept: in its term, in another, put away, or not at all. */
export function keepingRoutes(ctx: Context): Router {
  const router = Router();

  /** What of a course has to stay: by it the page says what can be done. */
  router.get('/courses/:course/traces', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    res.json(await tracesOf(ctx.db, courseId, ctx.now()));
  });

  /** Another term, for a course that nobody has been told of: its series keep their weeks and weekdays. */
  router.post('/courses/:course/move', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const { term } = parse(MoveInput, req.body);
    res.json(await once(ctx, req, (db) => moved(ctx, db, member, term)));
  });

  /** Put away, or brought back: a course whose sessions are over is out of the way and otherwise as it was. */
  router.put('/courses/:course/archived', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { archived } = parse(z.object({ archived: z.boolean() }), req.body);
    await transaction(ctx.db, async (db) => {
      await takeTurn(db, courseId);
      const { ahead } = await tracesOf(db, courseId, ctx.now());
      if (archived && ahead)
        throw new AppError(
          'must-stay',
          `${countWords(ahead, 'session')} of it ${ahead === 1 ? 'is' : 'are'} ahead. Cancel what is not to take place, then put it away.`,
        );
      await putAway(db, archived ? ctx.now() : null, courseId);
    });
    res.json({});
  });

  /** Gone for good, where nothing has to stay: nothing was taught, and nobody was written to. */
  router.delete('/courses/:course', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    await transaction(ctx.db, async (db) => {
      const { rehearsal } = await takeTurn(db, courseId);
      if (rehearsal) throw new AppError('must-stay', 'End the rehearsal instead: all of it goes with it.');
      refuseTraces(await tracesOf(db, courseId, ctx.now()), 'Put it away instead.');
      await deleteCourse(db, courseId);
    });
    res.json({});
  });
  return router;
}

function refuseTraces({ held, written }: Traces, instead: string) {
  if (held) throw new AppError('must-stay', `${countWords(held, 'session')} of it were held. ${instead}`);
  if (written)
    throw new AppError(
      'must-stay',
      `${countWords(written, 'person', 'people')} of it were written to. ${instead}`,
    );
}

async function moved(ctx: Context, db: PoolConnection, member: MemberRow, termId: string) {
  const { courseId } = member;
  const course = await takeTurn(db, courseId);
  await termShared(db, termId);
  const term = await termById(db, termId);
  if (!term) throw new AppError('not-found', 'The college has no such term.');
  if (course.termId === termId) throw new AppError('no-change');
  const now = ctx.now();
  refuseTraces(await tracesOf(db, courseId, now), 'Carry it to the other term instead: see Reuse.');
  if (await courseByCode(db, termId, course.code)) throw new AppError('code-taken');
  const bells = await bellTimesOf(db);
  await toTerm(db, termId, courseId);
  const make = async () => {
    for (const s of await seriesOf(db, courseId)) {
      const pattern = s.pattern && carry(course.term, term, s.pattern, periodsFor(s.pattern, bells)).pattern;
      const [fits] = await fitting({ db, courseId, term, now }, [{ ...s, leads: [...s.leads], pattern }]);
      if (!fits)
        throw new AppError('no-sessions', `${s.title} gives no session in ${term.name}. Change it first.`);
      await writeSeries(db, courseId, { ...s, leads: [...s.leads], pattern });
      await laySeries(db, { id: s.id, courseId, kind: s.kind, pattern }, term, null);
    }
    return `Moved from ${course.term.name} to ${term.name}`;
  };
  const change = { courseId, term, by: member.name, now, tellAt: now, make };
  await changePlan(db, { ...change, barrier: true, mayBeEmpty: true });
  return {};
}

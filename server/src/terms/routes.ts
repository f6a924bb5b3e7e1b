import { Router, type Request } from 'express';
import {
  BellTimesInput,
  Term,
  type BellTimes,
  type CollegeOutcome,
  type LetterAhead,
  type TermInfo,
} from '@nimble-bell/core/api';
import type { PoolConnection } from 'mysql2/promise';
import { principalOf } from '../accounts/principal';
import { newId, type Context } from '../context';
import { rehearse } from '../db/pool';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { lettersTo } from '../mail/foretell';
import { layCourses } from '../planning/layCourses';
import {
  bellsForUpdate,
  bellsKnown,
  bellsShared,
  bellsNamed,
  bellTimesOf,
  deleteBells,
  insertBells,
  insertTerm,
  otherBellsNamed,
  seriesByBells,
  seriesInTerm,
  termById,
  termForUpdate,
  termsOf,
  writeBells,
  writeTerm,
} from './store';

const staff = async (ctx: Context, req: Request) => {
  const principal = await principalOf(ctx, req.headers);
  if (principal.kind !== 'account' || !principal.person.staff) throw new AppError('forbidden');
  return principal.person;
};

/** By whom, and whether it is only to be foreseen. */
interface Asked {
  by: string;
  foreseen: boolean;
}

/** Lays the named series anew in the caller's transaction, each course's change kept in its own history. */
const layAnew = (
  ctx: Context,
  db: PoolConnection,
  ids: string[],
  asked: Asked & { words: string },
): Promise<CollegeOutcome> =>
  layCourses(db, ids, { ...asked, now: ctx.now(), tellAt: ctx.now() + ctx.config.gatherMs });

/** What will be sent to whom, over all courses. */
const lettersOf = (ctx: Context, save: (db: PoolConnection) => Promise<CollegeOutcome>) =>
  rehearse(ctx.db, async (db): Promise<LetterAhead[]> => {
    const { courses } = await save(db);
    const ids = courses.map((c) => c.id);
    return lettersTo(
      ctx,
      db,
      ids,
      courses.flatMap((c) => c.told),
    );
  });

const saveTerm = async (ctx: Context, db: PoolConnection, id: string, term: Term, how: Asked) => {
  await bellsShared(db);
  await termForUpdate(db, id);
  await writeTerm(db, term, id);
  const series = await seriesInTerm(db, id);
  return layAnew(
    ctx,
    db,
    series.map((s) => s.id),
    { ...how, words: `${term.name} changed` },
  );
};

const saveBells = async (ctx: Context, db: PoolConnection, id: string, bells: BellTimesInput, how: Asked) => {
  await bellsForUpdate(db, id);
  const taken = await otherBellsNamed(db, bells.name, id);
  if (taken) throw new AppError('name-taken', undefined, [{ path: 'name', message: 'This name is taken.' }]);
  await writeBells(db, bells.name, bells.periods, id);
  const series = await seriesByBells(db, id);
  return layAnew(
    ctx,
    db,
    series.map((s) => s.id),
    { ...how, words: `Bell times ${bells.name} changed` },
  );
};

const doing = (by: string): Asked => ({ by, foreseen: false });
const foreseeing = (by: string): Asked => ({ by, foreseen: true });

const known = async (ctx: Context, id: string) => {
  const term = await termById(ctx.db, id);
  if (!term) throw new AppError('not-found');
  return term;
};

const knownBells = async (ctx: Context, id: string) => {
  if (!(await bellsKnown(ctx.db, id))) throw new AppError('not-found');
};

/** The college's terms and bell times. They are its staff's; a change of them moves the sessions of every course. */
export function termRoutes(ctx: Context): Router {
  const router = Router();

  calendarRoutes(router, ctx);

  bellRoutes(router, ctx);
  return router;
}

/** Terms. */
function calendarRoutes(router: Router, ctx: Context) {
  router.get('/terms', async (req, res) => {
    await staff(ctx, req);
    const terms: TermInfo[] = await termsOf(ctx.db);
    res.json(terms);
  });

  router.post('/terms', async (req, res) => {
    await staff(ctx, req);
    const term = parse(Term, req.body);
    const made = await once(ctx, req, async (db) => {
      const id = newId();
      await insertTerm(db, id, term);
      return { id };
    });
    res.status(201).json(made);
  });

  router.post('/terms/:term/preview', async (req, res) => {
    const { name } = await staff(ctx, req);
    await known(ctx, req.params.term);
    const term = parse(Term, req.body);
    res.json(await rehearse(ctx.db, (db) => saveTerm(ctx, db, req.params.term, term, foreseeing(name))));
  });

  router.post('/terms/:term/letters', async (req, res) => {
    const { name } = await staff(ctx, req);
    await known(ctx, req.params.term);
    const term = parse(Term, req.body);
    res.json(await lettersOf(ctx, (db) => saveTerm(ctx, db, req.params.term, term, doing(name))));
  });

  router.put('/terms/:term', async (req, res) => {
    const { name } = await staff(ctx, req);
    await known(ctx, req.params.term);
    const term = parse(Term, req.body);
    res.json(await once(ctx, req, (db) => saveTerm(ctx, db, req.params.term, term, doing(name))));
  });
}

/** Bell times. */
function bellRoutes(router: Router, ctx: Context) {
  router.get('/bell-times', async (req, res) => {
    await staff(ctx, req);
    const sets: BellTimes[] = await bellTimesOf(ctx.db);
    res.json(sets);
  });

  router.post('/bell-times', async (req, res) => {
    await staff(ctx, req);
    const bells = parse(BellTimesInput, req.body);
    const made = await once(ctx, req, async (db) => {
      if (await bellsNamed(db, bells.name))
        throw new AppError('name-taken', undefined, [{ path: 'name', message: 'This name is taken.' }]);
      const id = newId();
      await insertBells(db, id, bells.name, bells.periods);
      return { id };
    });
    res.status(201).json(made);
  });

  router.post('/bell-times/:bells/preview', async (req, res) => {
    const { name } = await staff(ctx, req);
    await knownBells(ctx, req.params.bells);
    const bells = parse(BellTimesInput, req.body);
    res.json(await rehearse(ctx.db, (db) => saveBells(ctx, db, req.params.bells, bells, foreseeing(name))));
  });

  router.post('/bell-times/:bells/letters', async (req, res) => {
    const { name } = await staff(ctx, req);
    await knownBells(ctx, req.params.bells);
    const bells = parse(BellTimesInput, req.body);
    res.json(await lettersOf(ctx, (db) => saveBells(ctx, db, req.params.bells, bells, doing(name))));
  });

  router.put('/bell-times/:bells', async (req, res) => {
    const { name } = await staff(ctx, req);
    await knownBells(ctx, req.params.bells);
    const bells = parse(BellTimesInput, req.body);
    res.json(await once(ctx, req, (db) => saveBells(ctx, db, req.params.bells, bells, doing(name))));
  });

  router.delete('/bell-times/:bells', async (req, res) => {
    await staff(ctx, req);
    await knownBells(ctx, req.params.bells);
    if ((await seriesByBells(ctx.db, req.params.bells)).length) throw new AppError('in-use');
    await deleteBells(ctx.db, req.params.bells);
    res.json({});
  });
}

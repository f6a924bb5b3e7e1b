import { Router } from 'express';
import { PreparedInput } from '@nimble-bell/core/api';
import { namesIn } from '@nimble-bell/core/room';
import { asked } from '../accounts/principal';
import { newId, type Context } from '../context';
import { takeTurn } from '../courses/turn';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { eventsOf } from '../room/store';
import { seatedIn } from '../sessions/store';
import { taught } from '../sessions/taught';
import { askedIn } from './asked';
import {
  changePrepared,
  countPrepared,
  deletePrepared,
  insertPrepared,
  MOST_PREPARED,
  preparedOf,
} from './store';

/** The questions that a course has prepared, and what its classes were asked: for those who teach. */
export function questionRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/courses/:course/questions', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    res.json(await preparedOf(ctx.db, courseId));
  });

  router.post('/courses/:course/questions', async (req, res) => {
    const { courseId, name } = await asked(ctx, req, 'teach');
    const input = parse(PreparedInput, req.body);
    const id = newId();
    const made = await once(ctx, req, async (db) => {
      await takeTurn(db, courseId);
      if ((await countPrepared(db, courseId)) >= MOST_PREPARED)
        throw new AppError('invalid', `A course keeps at most ${MOST_PREPARED} questions.`);
      await insertPrepared(db, courseId, id, name, input);
      return { id };
    });
    res.status(201).json(made);
  });

  router.put('/courses/:course/questions/:question', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const input = parse(PreparedInput, req.body);
    const changed = await changePrepared(ctx.db, courseId, req.params.question, input);
    if (!changed.affectedRows) throw new AppError('not-found');
    res.json({});
  });

  router.delete('/courses/:course/questions/:question', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const gone = await deletePrepared(ctx.db, courseId, req.params.question);
    if (!gone.affectedRows) throw new AppError('not-found');
    res.json({});
  });

  /** What a class was asked, and what each answered. */
  router.get('/sessions/:id/asked', async (req, res) => {
    const { session } = await taught(ctx, req);
    const [events, seated] = await Promise.all([
      eventsOf(ctx.db, session.id),
      seatedIn(ctx.db, session.courseId),
    ]);
    const listed = new Map(seated.map((m) => [m.id, m.name]));
    res.json(
      askedIn(
        events,
        namesIn(events, (member) => listed.get(member) ?? 'Somebody'),
      ),
    );
  });
  return router;
}

import { Router, type Request } from 'express';
import { RecordingTitle } from '@nimble-bell/core/api';
import { principalOf, requireRight } from '../accounts/principal';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { nameRecording, recordingsWhere, takeAway } from './store';

/** What a recording is called; taken away, and taken back while that can be. */
export function careRoutes(ctx: Context): Router {
  const router = Router();
  const theirs = async (req: Request): Promise<string> => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
    if (!row) throw new AppError('not-found');
    await requireRight(ctx, await principalOf(ctx, req.headers), row.courseId, 'plan');
    return row.id;
  };

  router.put('/recordings/:id', async (req, res) => {
    const id = await theirs(req);
    const { title } = parse(RecordingTitle, req.body);
    await transaction(ctx.db, (db) => nameRecording(db, id, title || null));
    res.json({});
  });

  router.delete('/recordings/:id', async (req, res) => {
    const id = await theirs(req);
    await once(ctx, req, async (db) => {
      if (!(await takeAway(db, id, ctx.now())))
        throw new AppError('not-ready', 'There is nothing of it to delete now.');
      return {};
    });
    res.json({});
  });

  router.post('/recordings/:id/back', async (req, res) => {
    const id = await theirs(req);
    await once(ctx, req, async (db) => {
      if (!(await takeAway(db, id, null))) throw new AppError('not-found', 'It is gone for good.');
      return {};
    });
    res.json({});
  });
  return router;
}

import { Router } from 'express';
import type { ClassNotesInfo } from '@nimble-bell/core/api';
import { CLASS } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { here } from '../sessions/here';
import { textOf } from './shared';
import { updatesOf } from './store';

/** What a class wrote together, for everybody whom its session is for. */
export function notesRoutes(ctx: Context): Router {
  const router = Router();
  router.get('/sessions/:id/notes', async (req, res) => {
    const { session } = await here(ctx, req);
    const updates = await updatesOf(ctx.db, { session: session.id, place: CLASS, name: 'notes' });
    res.json({ text: textOf(updates) } satisfies ClassNotesInfo);
  });
  return router;
}

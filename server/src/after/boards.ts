import { Router } from 'express';
import type { KeptBoardInfo } from '@nimble-bell/core/api';
import { withheldIn } from '@nimble-bell/core/recording';
import { boardsAfter, evolve, newRoom, type KeptBoard } from '@nimble-bell/core/room';
import type { MemberRow } from '../accounts/store';
import type { Context } from '../context';
import type { LayeredSession } from '../courses/store';
import { AppError } from '../errors';
import { eventsOf } from '../room/store';
import { here } from '../sessions/here';

/** The boards of a session that somebody may have: none while its class is on, when the room itself has them. */
async function boardsFor(
  ctx: Context,
  session: LayeredSession,
  { id, role }: MemberRow,
): Promise<KeptBoard[]> {
  if (session.state !== 'held') return [];
  const events = await eventsOf(ctx.db, session.id);
  return boardsAfter(events.reduce(evolve, newRoom()), { member: id, role }, withheldIn(events));
}

/** What was drawn in a class, to be looked at and taken along once it is over. */
export function boardRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/sessions/:id/boards', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const boards = await boardsFor(ctx, session, me);
    res.json(
      boards.map(
        ({ place, title, sides }) => ({ place, title, sides: sides.length }) satisfies KeptBoardInfo,
      ),
    );
  });

  router.get('/sessions/:id/boards/:place', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const board = (await boardsFor(ctx, session, me)).find((b) => b.place === req.params.place);
    if (!board) throw new AppError('not-found', 'There is no such board, or it is not yours.');
    res.json(board satisfies KeptBoard);
  });

  return router;
}

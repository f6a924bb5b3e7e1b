import { withheldIn } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../../context';
import { eventsOf } from '../../room/store';
import { sessionOf } from '../store';
import { LATE_MS, pieceDue } from './due';
import { makePieces } from './make';
import { alone, partBy, piecesOf, queuePiece } from './store';

/** Makes what can be made by now of a part that is being recorded, and comes back for the next piece while it is. */
export async function keepUp(ctx: Context, db: PoolConnection, id: string): Promise<void> {
  const part = await partBy(db, id);
  const session = part && (await sessionOf(db, part.recording));
  if (!part || !session) return;
  const from = Number(part.from);
  const over = part.until !== null;
  const until = over ? Number(part.until) : ctx.now() - LATE_MS;
  const withheld = withheldIn(await eventsOf(db, session));
  await alone(db, part.recording, () =>
    makePieces(ctx, db, { id, recording: part.recording, from, until }, { over, withheld, patient: true }),
  );
  if (over) return;
  const next = (await piecesOf(db, id)).length;
  await queuePiece(db, id, next, pieceDue(from, next));
}

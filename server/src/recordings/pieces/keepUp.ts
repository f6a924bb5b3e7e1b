import { withheldIn } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../../context';
import { eventsOf } from '../../room/store';
import { recordingsWhere } from '../store';
import { LATE_MS, PIECE_MS, pieceDue } from './due';
import { joinAhead } from './join';
import { makePieces } from './make';
import { alone, partBy, piecesOf, queuePiece } from './store';

/** Makes the next piece of a part that is being recorded, and comes back for the one after it; of one that is over, all. */
export async function keepUp(ctx: Context, db: PoolConnection, id: string): Promise<void> {
  const part = await partBy(db, id);
  const [row] = part ? await recordingsWhere(db, 'r.id', part.recording) : [];
  if (!part || !row) return;
  const { plan } = row;
  const from = Number(part.from);
  const over = part.until !== null;
  const number = (await piecesOf(db, id)).length;
  // One at a time: what is made stands, whatever happens to the next.
  const until = over ? Number(part.until) : Math.min(ctx.now() - LATE_MS, from + (number + 1) * PIECE_MS);
  const withheld = withheldIn(await eventsOf(db, row.sessionId));
  const span = { id, recording: part.recording, from, until };
  await alone(db, part.recording, async () => {
    const pieces = await makePieces(ctx, db, span, { over, withheld, plan, patient: true });
    await joinAhead(ctx, part.recording, span, pieces);
  });
  if (over) return;
  const next = (await piecesOf(db, id)).length;
  await queuePiece(db, id, next, pieceDue(from, next));
}

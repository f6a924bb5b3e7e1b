import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { levelArguments, lengthOf, measureArguments, measuredIn } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { piecesDir, rawDir, readyDir, removeBeginning, runProgram } from './files';
import { alone, forgetPieces, piecesOf, type Piece } from './pieces/store';
import { listSounds } from './prepare';
import { noteFinished, partsOf, recordingsWhere } from './store';

/**
 * What can be watched already is finished: its sound levelled as a whole, its silences found. Then, and not before, what
 * the relay wrote of it is let go.
 */
export const finishRecording = (ctx: Context, db: PoolConnection, recording: string): Promise<void> =>
  alone(db, recording, async () => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
    if (row?.whole.state !== 'ready' || !row.whole.file || row.finishedAt !== null) return;
    const parts = (await partsOf(ctx.db, recording)).filter((p) => p.until > p.from);
    const made = new Map<string, Piece[]>();
    for (const { id } of parts) made.set(id, await piecesOf(ctx.db, id));
    const list = await listSounds(ctx, recording, parts, made, 'whole');
    const patient = { patient: true };
    const { stderr } = await runProgram('ffmpeg', measureArguments(list), patient);
    const measured = measuredIn(stderr, lengthOf(parts));
    const file = path.join(recording, 'sound.webm');
    const sound = path.join(readyDir(ctx), file);
    await runProgram('ffmpeg', levelArguments(list, measured, sound), patient);
    const quick = path.join(readyDir(ctx), row.whole.file);
    const grown = (await stat(sound)).size - (await stat(quick)).size;
    await transaction(ctx.db, async (tx) => {
      await noteFinished(tx, { recording, file, grown, silences: measured.silences, now: ctx.now() });
      await forgetPieces(tx, recording);
    });
    await rm(quick, { force: true });
    await letGo(ctx, recording);
  });

/** What a recording was made of. */
export async function letGo(ctx: Context, recording: string): Promise<void> {
  await rm(path.join(piecesDir(ctx), recording), { recursive: true, force: true });
  for (const { id } of await partsOf(ctx.db, recording)) await removeBeginning(rawDir(ctx), `${id}-`);
}

import { rm } from 'node:fs/promises';
import path from 'node:path';
import { camerasKept, keepsStudents, type Part } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { eventsOf } from '../room/store';
import { piecesDir, rawDir, readyDir, removeBeginning } from './files';
import { levelSound } from './level';
import { cutCameras } from './pieces/cameras';
import { joinPictures } from './pieces/join';
import { alone, forgetPieces } from './pieces/store';
import { bytesOf, piecesFor } from './prepare';
import { allPartsOf, noteFinished, partsOf, picturesIn, recordingsWhere, type RecordingRow } from './store';
import { makeTables } from './tables/make';
import { layTables } from './tables/store';

/**
 * What can be watched already is finished: its sound levelled as a whole, its silences found, each picture one. Then, and not before, what
 * the relay wrote of it is let go.
 */
export const finishRecording = (ctx: Context, db: PoolConnection, recording: string): Promise<void> =>
  alone(db, recording, async () => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
    if (row?.whole.state !== 'ready' || !row.whole.file) return;
    // Ended between the two, the second is still to be done.
    if (row.finishedAt !== null) return letGo(ctx, recording);
    const parts = (await partsOf(ctx.db, recording)).filter((p) => p.until > p.from);
    const made = await piecesFor(ctx, row, parts, { over: true, patient: true });
    const file = path.join(recording, 'sound.webm');
    const { silences } = await levelSound(ctx, { recording, parts, made, file });
    const tables = await makeTables(ctx, row);
    const quick = path.join(readyDir(ctx), row.whole.file);
    const pictures = [
      ...(await joinPictures(ctx, recording, parts, made, { named: 'whole', inOne: true })),
      ...(await cutCameras(ctx, recording, parts, made, await camerasOf(ctx, row, parts))),
    ].sort((a, b) => a.at - b.at);
    const before = await picturesIn(ctx.db, { id: recording, cut: null });
    const bytes = await bytesOf(ctx, [file, ...[...pictures, ...tables].map((p) => p.file)]);
    await transaction(ctx.db, async (tx) => {
      await layTables(tx, recording, tables);
      await noteFinished(tx, { recording, file, bytes, pictures, silences, now: ctx.now() });
      await forgetPieces(tx, recording);
    });
    for (const old of [quick, ...before.map((p) => path.join(readyDir(ctx), p.file))])
      await rm(old, { force: true });
    await letGo(ctx, recording);
  });

const camerasOf = async (ctx: Context, { plan, sessionId }: RecordingRow, parts: readonly Part[]) =>
  keepsStudents(plan) ? camerasKept(await eventsOf(ctx.db, sessionId), parts) : new Map();

/** What a recording was made of. */
export async function letGo(ctx: Context, recording: string): Promise<void> {
  await rm(path.join(piecesDir(ctx), recording), { recursive: true, force: true });
  for (const { id } of await allPartsOf(ctx.db, recording)) await removeBeginning(rawDir(ctx), `${id}-`);
}

import { rm } from 'node:fs/promises';
import path from 'node:path';
import { camerasKept, keepsStudents, type Part } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { eventsOf } from '../room/store';
import { piecesDir, rawDir, removeBeginning } from './files';
import { levelSound } from './level';
import { cutCameras } from './pieces/cameras';
import { joinPictures } from './pieces/join';
import { alone, forgetPieces } from './pieces/store';
import { bytesOf, piecesFor } from './prepare';
import { allPartsOf, noteFinished, partsOf, recordingsWhere, type RecordingRow } from './store';
import { makeTables } from './tables/make';
import { layTables, tablesMadeAt } from './tables/store';
import { letUntoldGo } from './untold';

/**
 * What can be watched already is finished: its sound levelled as a whole, its silences found, each picture one; then what
 * was said at tables, which nobody watches yet. Then, and not before, what the relay wrote of it is let go.
 */
export const finishRecording = (ctx: Context, db: PoolConnection, recording: string): Promise<void> =>
  alone(db, recording, async () => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
    if (row?.whole.state !== 'ready' || !row.whole.file) return;
    // Ended between two of these, the others are still to be done.
    if (row.finishedAt === null) await finishClass(ctx, row);
    // Here and not with the class: ended before this, what was ready at once would stay for good.
    await letUntoldGo(ctx, recording);
    await finishTables(ctx, row);
    await letGo(ctx, recording);
  });

async function finishClass(ctx: Context, row: RecordingRow) {
  const recording = row.id;
  const parts = (await partsOf(ctx.db, recording)).filter((p) => p.until > p.from);
  const made = await piecesFor(ctx, row, parts, { over: true, patient: true });
  const file = path.join(recording, 'sound.webm');
  const { silences } = await levelSound(ctx, { recording, parts, made, file });
  const pictures = [
    ...(await joinPictures(ctx, recording, parts, made, { named: 'whole', inOne: true })),
    ...(await cutCameras(ctx, recording, parts, made, await camerasOf(ctx, row, parts))),
  ].sort((a, b) => a.at - b.at);
  const bytes = await bytesOf(ctx, [file, ...pictures.map((p) => p.file)]);
  await transaction(ctx.db, async (tx) => {
    await noteFinished(tx, { recording, file, bytes, pictures, silences, now: ctx.now() });
    await forgetPieces(tx, recording);
  });
}

async function finishTables(ctx: Context, row: RecordingRow) {
  if ((await tablesMadeAt(ctx.db, row.id)) !== null) return;
  const tables = await makeTables(ctx, row);
  const bytes = await bytesOf(
    ctx,
    tables.map((t) => t.file),
  );
  await transaction(ctx.db, async (tx) => {
    await layTables(tx, row.id, { tables, bytes, now: ctx.now() });
    await forgetPieces(tx, row.id);
  });
}

const camerasOf = async (ctx: Context, { plan, sessionId }: RecordingRow, parts: readonly Part[]) =>
  keepsStudents(plan) ? camerasKept(await eventsOf(ctx.db, sessionId), parts) : new Map();

/** What a recording was made of. */
export async function letGo(ctx: Context, recording: string): Promise<void> {
  await rm(path.join(piecesDir(ctx), recording), { recursive: true, force: true });
  for (const { id } of await allPartsOf(ctx.db, recording)) await removeBeginning(rawDir(ctx), `${id}-`);
}

import { rm } from 'node:fs/promises';
import path from 'node:path';
import {
  camerasKept,
  keepsStudents,
  levelArguments,
  lengthOf,
  measureArguments,
  measuredIn,
  type Part,
} from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { eventsOf } from '../room/store';
import { piecesDir, rawDir, readyDir, removeBeginning, runProgram } from './files';
import { cutCameras } from './pieces/cameras';
import { joinPictures, listSounds } from './pieces/join';
import { alone, forgetPieces } from './pieces/store';
import { bytesOf, piecesFor } from './prepare';
import { noteFinished, partsOf, picturesIn, recordingsWhere, type RecordingRow } from './store';

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
    const list = await listSounds(ctx, recording, parts, made, 'whole');
    const patient = { patient: true };
    const { stderr } = await runProgram('ffmpeg', measureArguments(list), patient);
    const measured = measuredIn(stderr, lengthOf(parts));
    const file = path.join(recording, 'sound.webm');
    const sound = path.join(readyDir(ctx), file);
    await runProgram('ffmpeg', levelArguments(list, measured, sound), patient);
    const quick = path.join(readyDir(ctx), row.whole.file);
    const pictures = [
      ...(await joinPictures(ctx, recording, parts, made, { named: 'whole', inOne: true })),
      ...(await cutCameras(ctx, recording, parts, made, await camerasOf(ctx, row, parts))),
    ].sort((a, b) => a.at - b.at);
    const before = await picturesIn(ctx.db, { id: recording, cut: null });
    const bytes = await bytesOf(ctx, [file, ...pictures.map((p) => p.file)]);
    await transaction(ctx.db, async (tx) => {
      const { silences } = measured;
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
  for (const { id } of await partsOf(ctx.db, recording)) await removeBeginning(rawDir(ctx), `${id}-`);
}

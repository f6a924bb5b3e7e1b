import { rename, stat } from 'node:fs/promises';
import path from 'node:path';
import { cutPictures, cutSoundArguments } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../../context';
import { transaction } from '../../db/pool';
import { indexWords } from '../../watching/words';
import { folderOf, readyDir, runFar } from '../files';
import { finishRecording } from '../finish';
import { alone } from '../pieces/store';
import { asRecorded, picturesIn, recordingsWhere, type PictureFile, type RecordingRow } from '../store';
import { letUntoldGo } from '../untold';
import { cutPicture } from './picture';
import { forgetOtherCuts, keepCut, noteCut, noteCutting, type MadeCut } from './store';

/** How far it is, is said so often at most, ms; whether it is still in force is asked with it. */
const SAID_MS = 500;

/** What a cut that is in force tells: made of what was recorded, which stays. Killed at any moment, it is made anew. */
export async function makeCut(ctx: Context, db: PoolConnection, recording: string): Promise<void> {
  // Levelled before it is cut: what is cut sounds as the rest.
  await finishRecording(ctx, db, recording);
  await alone(db, recording, async () => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
    if (row?.whole.state !== 'ready' || !row.whole.file) return;
    if (row.cut && row.state !== 'ready') {
      const made = await madeOf(ctx, row as Cutting);
      if (!made) return;
      await transaction(ctx.db, (tx) => keepCut(tx, recording, row.cut!.number, made));
      await indexWords(ctx, recording);
      await noteCut(ctx.db, recording, row.cut.number, 'ready');
    } else await indexWords(ctx, recording);
    await forgetOtherCuts(ctx.db, recording, row.cut?.number ?? null);
    await letUntoldGo(ctx, recording);
  });
}

type Cutting = RecordingRow & { cut: NonNullable<RecordingRow['cut']>; whole: { file: string } };

/** Null where another cut came into force meanwhile: that has a job of its own. */
async function madeOf(ctx: Context, row: Cutting): Promise<MadeCut | null> {
  const leaving = new AbortController();
  let last = 0;
  const far = (share: number) => {
    const now = performance.now();
    if (now - last < SAID_MS) return;
    last = now;
    void noteCutting(ctx.db, row.id, row.cut.number, Math.min(0.99, share))
      .then((wanted) => wanted || leaving.abort())
      .catch(() => {});
  };
  try {
    return await make(ctx, row, far, leaving.signal);
  } catch (error) {
    if (leaving.signal.aborted) return null;
    await noteCut(ctx.db, row.id, row.cut.number, 'failed');
    throw error;
  }
}

async function make(
  ctx: Context,
  row: Cutting,
  far: (share: number) => void,
  signal: AbortSignal,
): Promise<MadeCut> {
  const { cut, whole, id } = row;
  await folderOf(readyDir(ctx), id);
  // Of names of its own: what plays the recording as it was does not get this in the middle.
  const named = (name: string) => path.join(id, `cut-${cut.number}-${name}`);
  const at = (file: string) => path.join(readyDir(ctx), file);
  const file = named('sound.webm');
  const work = `${at(file)}.work.webm`;
  await runFar(cutSoundArguments(at(whole.file), cut.marks, whole.lengthMs, work), {
    far: (ms) => far((0.7 * ms) / row.lengthMs),
    signal,
  });
  await rename(work, at(file));
  const recorded = await picturesIn(ctx.db, asRecorded(row));
  const wanted = cutPictures(recorded, cut.marks, whole.lengthMs);
  const pictures: PictureFile[] = [];
  for (const [i, { kind, at: shown, length, ...out }] of wanted.entries()) {
    signal.throwIfAborted();
    const picture = named(`picture-${i}.webm`);
    await cutPicture(at(recorded[out.of]!.file), out, at(picture));
    pictures.push({ kind, at: shown, length, file: picture, member: recorded[out.of]!.member });
    far(0.7 + (0.3 * (i + 1)) / wanted.length);
  }
  const sizes = await Promise.all(
    [file, ...pictures.map((p) => p.file)].map(async (f) => (await stat(at(f))).size),
  );
  return { file, pictures, bytes: sizes.reduce((sum, size) => sum + size, 0) };
}

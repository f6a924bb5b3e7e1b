import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { lengthOf, withheldIn } from '@nimble-bell/core/recording';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import type { MediaRelay } from '../media/relay';
import { eventsOf } from '../room/store';
import { makeCutAnew } from './cuts/store';
import { keepClassCaptions } from './classCaptions';
import { folderOf, readyDir } from './files';
import { joinPictures, joinSound, type Made, type Part } from './pieces/join';
import { makePieces } from './pieces/make';
import { alone, type Piece } from './pieces/store';
import {
  noteFailed,
  noteProgress,
  noteReady,
  partsOf,
  queueFinishing,
  recordingsWhere,
  type RecordingRow,
} from './store';

/**
 * What the relay wrote becomes something to watch: most of it was prepared while class was on, and what is left is
 * prepared now; then the pieces are joined. Held by `db`, so that nobody else is at work on it.
 */
export const prepareRecording = (
  ctx: Context,
  db: PoolConnection,
  relay: MediaRelay,
  recording: string,
): Promise<void> =>
  alone(db, recording, async () => {
    try {
      await prepare(ctx, relay, recording);
    } catch (error) {
      await noteFailed(ctx.db, String(error), recording);
      throw error;
    }
  });

async function prepare(ctx: Context, relay: MediaRelay, recording: string) {
  const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
  if (!row) return;
  // What the relay still writes of it is closed first.
  if (relay.available) await relay.closeRoom(row.sessionId);
  const parts = (await partsOf(ctx.db, recording)).filter((p) => p.until > p.from);
  if (!parts.length) throw new Error('Nothing was recorded.');
  const make = (over: boolean, from: number, share: number) =>
    piecesFor(ctx, row, parts, {
      ...{ over, patient: false },
      made: (far) => noteProgress(ctx.db, from + share * far, recording),
    });
  const ready = path.join(readyDir(ctx), recording);
  await rm(ready, { recursive: true, force: true });
  await folderOf(readyDir(ctx), recording);
  // The pictures of what was made while class was on are joined while the last of it is made.
  const early = await make(false, 0, 0.4);
  const [first, all] = await Promise.all([
    joinPictures(ctx, recording, parts, early, { named: 'picture', inOne: false }),
    make(true, 0.4, 0.5),
  ]);
  const late: Made = new Map(parts.map(({ id }) => [id, all.get(id)!.slice(early.get(id)!.length)]));
  const file = path.join(recording, 'quick.webm');
  const [last] = await Promise.all([
    joinPictures(ctx, recording, parts, late, { named: 'last', inOne: false }),
    joinSound(ctx, recording, parts, all, path.join(readyDir(ctx), file)),
  ]);
  await keepClassCaptions(ctx, row, parts);
  const pictures = [...first, ...last];
  const bytes = await bytesOf(ctx, [file, ...pictures.map((p) => p.file)]);
  await transaction(ctx.db, async (tx) => {
    await noteReady(tx, { lengthMs: lengthOf(parts), bytes, pictures, file, recording });
    // What was made of it is gone with what it was.
    if (row.cut) await makeCutAnew(tx, recording, row.cut.number, ctx.now());
    await queueFinishing(tx, recording, ctx.now());
  });
}

/** The pieces of parts that are over, or all but their last, as they belong in the recording now. */
export async function piecesFor(
  ctx: Context,
  row: RecordingRow,
  parts: readonly Part[],
  asked: { over: boolean; patient: boolean; made?: (share: number) => Promise<unknown> },
): Promise<Map<string, Piece[]>> {
  const withheld = withheldIn(await eventsOf(ctx.db, row.sessionId));
  const { plan } = row;
  const all = new Map<string, Piece[]>();
  for (const [i, part] of parts.entries()) {
    const made = async (far: number) => asked.made?.((i + far) / parts.length);
    const span = { ...part, recording: row.id };
    all.set(part.id, await makePieces(ctx, ctx.db, span, { ...asked, withheld, plan, made }));
  }
  return all;
}

/** How much what is watched takes. */
export async function bytesOf(ctx: Context, files: readonly string[]): Promise<number> {
  const sizes = await Promise.all(files.map(async (f) => (await stat(path.join(readyDir(ctx), f))).size));
  return sizes.reduce((sum, size) => sum + size, 0);
}

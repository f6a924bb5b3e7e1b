import { createHash } from 'node:crypto';
import { access, copyFile, link, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import {
  followed,
  inParts,
  joinArguments,
  keptPictures,
  lengthOf,
  picturesOf,
} from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import { folderOf, piecesDir, readyDir, runProgram } from '../files';
import type { PictureFile } from '../store';
import { soundsOf } from './make';
import type { CutPicture, Piece } from './store';

/** A part of a recording; instants in ms. */
export type Part = { id: string; from: number; until: number };

/** The pieces of each part. */
export type Made = ReadonlyMap<string, readonly Piece[]>;

type Files = readonly { file: string; length: number }[];

/** So many pieces of a picture are joined as soon as they are all there, while class is on. */
const AT_ONCE = 10;

/** The list of a recording's sounds in their order. */
export async function listSounds(
  ctx: Context,
  recording: string,
  parts: readonly Part[],
  made: Made,
  which: 'whole' | 'quick',
): Promise<string> {
  const folder = await folderOf(piecesDir(ctx), recording);
  const files = parts.flatMap(({ id }) => {
    const pieces = made.get(id) ?? [];
    return pieces.map((p, i) => ({
      file: soundsOf(folder, id, p.number)[which],
      length: p.until - (pieces[i - 1]?.until ?? 0),
    }));
  });
  const list = path.join(folder, `${which}.txt`);
  await writeFile(list, followed(files));
  return list;
}

export async function joinSound(
  ctx: Context,
  recording: string,
  parts: readonly Part[],
  made: Made,
  output: string,
) {
  await runProgram('ffmpeg', joinArguments(await listSounds(ctx, recording, parts, made, 'quick'), output));
}

type Shown = Omit<PictureFile, 'file' | 'member'> & { files: Files; ahead: boolean };

/** The pictures of these pieces that are kept, each of at most so many files; their times in ms of the recording. */
function shownIn(parts: readonly Part[], made: Made, most: number): Shown[] {
  return parts.flatMap((part, i) => {
    const begins = lengthOf(parts.slice(0, i));
    const slices: CutPicture[] = keptPictures((made.get(part.id) ?? []).flatMap((p) => p.slices));
    return picturesOf(slices).flatMap((picture) => {
      const all = inParts(picture, most);
      return all.flatMap(({ kind, at, length, files }, n) => {
        const from = Math.max(0, Math.round(at));
        const until = Math.min(part.until - part.from, Math.round(at + length));
        // Something follows it: it stays as it is.
        const ahead = n < all.length - 1;
        return until > from ? [{ kind, at: begins + from, length: until - from, files, ahead }] : [];
      });
    });
  });
}

/**
 * The pictures of these pieces that are kept, copied as they came: each as one file where there is time for it, else in
 * parts, most of which were joined while class was on.
 */
export async function joinPictures(
  ctx: Context,
  recording: string,
  parts: readonly Part[],
  made: Made,
  { named, inOne }: { named: string; inOne: boolean },
): Promise<PictureFile[]> {
  const shown = shownIn(parts, made, inOne ? Infinity : AT_ONCE);
  return Promise.all(
    shown.map(async ({ files, ahead, ...picture }, i) => {
      const file = path.join(recording, `${named}-${i}.webm`);
      const target = path.join(readyDir(ctx), file);
      if (ahead) await also(await joinedAhead(ctx, recording, files), target);
      else await joinFiles(ctx, recording, files, target);
      return { ...picture, file, member: null };
    }),
  );
}

/** Joins of a part that is still being recorded what can be joined by now. */
export async function joinAhead(ctx: Context, recording: string, part: Part, pieces: readonly Piece[]) {
  for (const { files, ahead } of shownIn([part], new Map([[part.id, pieces]]), AT_ONCE))
    if (ahead) await joinedAhead(ctx, recording, files, true);
}

/** These files joined, now or before; its name says of what, so that a piece made anew is another. */
async function joinedAhead(ctx: Context, recording: string, files: Files, patient = false): Promise<string> {
  const of = await Promise.all(
    files.map(async ({ file, length }) => {
      const { size, mtimeMs } = await stat(file);
      return [file, length, size, mtimeMs];
    }),
  );
  const name = createHash('sha256').update(JSON.stringify(of)).digest('hex').slice(0, 24);
  const joined = path.join(await folderOf(piecesDir(ctx), recording), `joined-${name}.webm`);
  const there = await access(joined).then(
    () => true,
    () => false,
  );
  if (there) return joined;
  const beginning = `${joined}.part.webm`;
  await joinFiles(ctx, recording, files, beginning, patient);
  await rename(beginning, joined);
  return joined;
}

/** The same file by another name, or where the disk cannot have it so, a copy. */
async function also(file: string, target: string) {
  await rm(target, { force: true });
  await link(file, target).catch(() => copyFile(file, target));
}

/** What follows one another in one file, as it came. */
export async function joinFiles(
  ctx: Context,
  recording: string,
  files: Files,
  target: string,
  patient = false,
) {
  if (files.length === 1) return copyFile(files[0]!.file, target);
  const list = path.join(await folderOf(piecesDir(ctx), recording), `${path.basename(target)}.txt`);
  await writeFile(list, followed(files));
  await runProgram('ffmpeg', joinArguments(list, target), { patient });
}

import { execFile } from 'node:child_process';
import { mkdir, open, readdir, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { z } from 'zod';
import {
  copiedPicture,
  lengthOf,
  mixArguments,
  type MixPart,
  type MixTrack,
  type Picture,
  withheldIn,
} from '@nimble-bell/core/recording';
import type { Context } from '../context';
import { TRACK_KINDS, type MediaRelay } from '../media/relay';
import { eventsOf } from '../room/store';
import { noteFailed, noteProgress, noteReady, partsOf, sessionOf, tracksOf } from './store';

const execute = promisify(execFile);
const MJR = 'MJR00002';
/** The relay's file header: when the first frame was written, microseconds since 1970. */
const Header = z.object({ t: z.enum(['a', 'v']), u: z.number().optional() });

export const rawDir = (ctx: Context) => path.join(ctx.config.dataDir, 'recordings', 'raw');
export const readyDir = (ctx: Context) => path.join(ctx.config.dataDir, 'recordings', 'ready');

/** Turns what the relay wrote into one file to watch: each track unpacked, each part mixed, the parts joined. */
export async function prepareRecording(ctx: Context, relay: MediaRelay, recording: string): Promise<void> {
  // What the relay still writes of it is closed first.
  const session = await sessionOf(ctx.db, recording);
  const withheld = withheldIn(session ? await eventsOf(ctx.db, session) : []);
  if (session && relay.available) await relay.closeRoom(session);
  const work = path.join(ctx.config.dataDir, 'recordings', 'work', recording);
  await rm(work, { recursive: true, force: true });
  await mkdir(work, { recursive: true });
  await mkdir(readyDir(ctx), { recursive: true });
  try {
    const spans = await partsOf(ctx.db, recording);
    const parts: MixPart[] = [];
    for (const [i, span] of spans.entries()) {
      const tracks = await unpack(ctx, { ...span, withheld }, work);
      parts.push({ length: span.until - span.from, tracks });
      await setProgress(ctx, recording, (0.4 * (i + 1)) / spans.length);
    }
    const file = path.join(readyDir(ctx), `${recording}.webm`);
    const picture = await mix(
      ctx,
      recording,
      parts.filter((p) => p.length > 0),
      work,
      file,
    );
    const { size } = await stat(file);
    await noteReady(ctx.db, {
      lengthMs: lengthOf(spans),
      bytes: size,
      hasPicture: picture,
      file: path.basename(file),
      recording,
    });
  } catch (error) {
    await noteFailed(ctx.db, String(error), recording);
    throw error;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

const setProgress = (ctx: Context, recording: string, progress: number) =>
  noteProgress(ctx.db, progress, recording);

/** The tracks of a part that hold anything, as WebM or Ogg, with when each began. */
async function unpack(
  ctx: Context,
  span: { id: string; from: number; withheld: ReadonlySet<string> },
  work: string,
): Promise<MixTrack[]> {
  const names = await readdir(rawDir(ctx)).catch(() => [] as string[]);
  const jobs: Promise<MixTrack | null>[] = [];
  // Of those who withdrew what was written before goes no further.
  const tracks = (await tracksOf(ctx.db, span.id)).filter((t) => !span.withheld.has(t.member));
  // Everyone who spoke is heard; of the cameras only the teacher's is kept, or an assistant's where none is.
  const filmed = tracks.some((t) => t.role === 'teacher') ? 'teacher' : 'assistant';
  for (const { base, role } of tracks)
    for (const name of names.filter((n) => n.startsWith(base) && n.endsWith('.mjr')))
      if (kindOf(name) !== 'camera' || role === filmed)
        jobs.push(unpackFile(ctx, path.join(rawDir(ctx), name), span.from, work));
  return (await Promise.all(jobs)).filter((t) => t !== null);
}

/** The relay ends a file's name with the number of the track's media section. */
const kindOf = (name: string) => TRACK_KINDS[Number(/-(\d+)\.mjr$/.exec(name)?.[1])];

async function unpackFile(
  ctx: Context,
  raw: string,
  partFrom: number,
  work: string,
): Promise<MixTrack | null> {
  const header = await headerOf(raw);
  const kind = kindOf(raw);
  if (!header?.u || !kind) return null;
  const file = path.join(work, `${path.basename(raw, '.mjr')}.${kind === 'sound' ? 'opus' : 'webm'}`);
  await execute('janus-pp-rec', [raw, file]);
  if (((await stat(file).catch(() => null))?.size ?? 0) === 0) return null;
  // The relay writes the machine's clock; a part is kept in the time in force.
  const began = header.u / 1000 + ctx.config.clockOffset;
  return { file, kind, offset: Math.max(0, began - partFrom) };
}

async function headerOf(raw: string) {
  const file = await open(raw);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(2048), 0, 2048, 0);
    if (bytesRead < 10 || buffer.toString('latin1', 0, 8) !== MJR) return null;
    const length = buffer.readUInt16BE(8);
    return Header.safeParse(JSON.parse(buffer.toString('utf8', 10, 10 + length))).data ?? null;
  } finally {
    await file.close();
  }
}

/** A part's picture is copied where that can be; the list of what to copy is written beside it. */
async function pictureOf(part: MixPart, listFile: string): Promise<Picture> {
  const copied = copiedPicture(part);
  if (!copied) return { how: 'draw' };
  await writeFile(listFile, copied.list);
  return { how: 'copy', listFile, offset: copied.offset };
}

/** Mixes the parts and joins them; gives whether there is a picture. */
async function mix(
  ctx: Context,
  recording: string,
  parts: MixPart[],
  work: string,
  output: string,
): Promise<boolean> {
  const picture = parts.some((p) => p.tracks.some((t) => t.kind !== 'sound'));
  const files: string[] = [];
  for (const [i, part] of parts.entries()) {
    const file = path.join(work, `part-${i}.webm`);
    const how = picture
      ? await pictureOf(part, path.join(work, `pictures-${i}.txt`))
      : { how: 'none' as const };
    await execute('ffmpeg', mixArguments(part, how, file), { maxBuffer: 1 << 24 });
    files.push(file);
    await setProgress(ctx, recording, 0.4 + (0.5 * (i + 1)) / parts.length);
  }
  if (files.length === 0) throw new Error('Nothing was recorded.');
  const list = path.join(work, 'parts.txt');
  await writeFile(list, files.map((f) => `file '${f}'\n`).join(''));
  const join = [
    '-y',
    '-v',
    'error',
    '-nostdin',
    '-f',
    'concat',
    '-safe',
    '0',
    '-i',
    list,
    '-c',
    'copy',
    output,
  ];
  await execute('ffmpeg', join, { maxBuffer: 1 << 24 });
  return picture;
}

import { rm, writeFile } from 'node:fs/promises';
import {
  copyArguments,
  followed,
  headArguments,
  joinArguments,
  keyFrames,
  type CutOut,
} from '@nimble-bell/core/recording';
import { runProgram } from '../files';

/** Nearer than this to a key frame a stretch begins with it, ms. */
const HAIR_MS = 20;

/**
 * One stretch of a picture in a file of its own: copied from its first key frame on, and what is before that encoded anew,
 * so that nothing is in it that was left out.
 */
export async function cutPicture(
  file: string,
  { from, until }: Pick<CutOut, 'from' | 'until'>,
  output: string,
): Promise<unknown> {
  const patient = { patient: true };
  const copy = (since: number, target: string) =>
    runProgram('ffmpeg', copyArguments(file, since, until, target), patient);
  if (from <= HAIR_MS) return copy(0, output);
  const key = (await keysOf(file, from, until)).find((k) => k >= from - HAIR_MS && k < until);
  if (key !== undefined && key - from <= HAIR_MS) return copy(key, output);
  const head = { file, codec: await looked(file, 'stream=codec_name') };
  const encode = (to: number, target: string) =>
    runProgram('ffmpeg', headArguments(head, from, to, target), patient);
  if (key === undefined) return encode(until, output);
  const [first, rest, list] = [`${output}.head.webm`, `${output}.rest.webm`, `${output}.txt`];
  try {
    await encode(key, first);
    await copy(key, rest);
    await writeFile(
      list,
      followed([
        { file: first, length: key - from },
        { file: rest, length: until - key },
      ]),
    );
    return await runProgram('ffmpeg', joinArguments(list, output), patient);
  } finally {
    for (const left of [first, rest, list]) await rm(left, { force: true });
  }
}

/** What ffprobe says of a picture. */
async function looked(file: string, entries: string, ...more: string[]): Promise<string> {
  const args = ['-v', 'error', '-select_streams', 'v:0', '-show_entries', entries, '-of', 'csv=p=0'];
  return (await runProgram('ffprobe', [...args, ...more, file])).stdout.trim();
}

/** Its key frames between two moments, ms. */
const keysOf = async (file: string, from: number, until: number): Promise<number[]> =>
  keyFrames(await looked(file, 'packet=pts_time,flags', '-read_intervals', `${from / 1000}%${until / 1000}`));

import { createHash } from 'node:crypto';
import { readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { ANYBODY, chapterMetadata, type Chapter } from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import { folderOf, readyDir, runProgram } from '../files';
import { coursesWithRecordings, recordingsWhere, type RecordingRow } from '../store';
import { toldTo } from '../told';

/** What is listened to of a recording: its file, by what is in it, and how large it is; no bytes where it is not made. */
export interface Listened {
  name: string;
  path: string;
  bytes: number | null;
  chapters: Chapter[];
}

/**
 * What is listened to of a recording as it is now. Cut, renamed or with other chapters it is another file, so that nobody
 * gets what was before.
 */
export async function listenedOf(ctx: Context, row: RecordingRow): Promise<Listened> {
  const { chapters } = await toldTo(ctx.db, row, ANYBODY);
  const all = JSON.stringify([row.finishedAt, row.cut?.number ?? null, row.title, chapters]);
  const name = `listen-${createHash('sha256').update(all).digest('hex').slice(0, 16)}.mp3`;
  const file = path.join(readyDir(ctx), row.id, name);
  return { name, path: file, bytes: (await stat(file).catch(() => null))?.size ?? null, chapters };
}

/** ffmpeg's arguments for a sound with its chapters, as MP3. */
export const mp3Arguments = (sound: string, metadata: string, output: string): string[] => [
  ...['-v', 'error', '-nostdin', '-y', '-i', sound, '-i', metadata, '-map', '0:a'],
  ...['-map_metadata', '1', '-map_chapters', '1', '-id3v2_version', '3'],
  ...['-c:a', 'libmp3lame', '-q:a', '4', output],
];

/** Makes what is listened to of a recording, and lets go what was before it. */
export async function makeListening(ctx: Context, recording: string): Promise<void> {
  const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
  if (!row || row.state !== 'ready' || !row.file || row.finishedAt === null) return;
  const { name, path: target, bytes, chapters } = await listenedOf(ctx, row);
  if (bytes === null) {
    const work = path.join(await folderOf(readyDir(ctx), row.id), `work-${name}`);
    try {
      await writeFile(`${work}.txt`, chapterMetadata(row.title, chapters, row.lengthMs));
      const sound = path.join(readyDir(ctx), row.file);
      await runProgram('ffmpeg', mp3Arguments(sound, `${work}.txt`, work), { patient: true });
      await rename(work, target);
    } finally {
      for (const left of [work, `${work}.txt`]) await rm(left, { force: true });
    }
  }
  await letOldGo(ctx, row, name);
}

async function letOldGo(ctx: Context, { id }: RecordingRow, name: string) {
  const folder = path.join(readyDir(ctx), id);
  for (const one of await readdir(folder).catch(() => [] as string[]))
    if (one.startsWith('listen-') && one !== name) await rm(path.join(folder, one), { force: true });
}

/** What is not so any more is not kept, though nobody asks for the new. */
export async function forgetListening(ctx: Context): Promise<void> {
  for (const course of await coursesWithRecordings(ctx.db))
    for (const row of await recordingsWhere(ctx.db, 's.course_id', course))
      if (row.whole.state === 'ready') await letOldGo(ctx, row, (await listenedOf(ctx, row)).name);
}

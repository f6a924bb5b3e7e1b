import { execFile } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import type { Response } from 'express';
import {
  chapterMetadata,
  chaptersOf,
  writtenLines,
  writtenText,
  type Watcher,
} from '@nimble-bell/core/recording';
import { writeCsv } from '@nimble-bell/core/roster';
import { newId, type Context } from '../context';
import { recordedEvents } from './events';
import { AppError } from '../errors';
import { partsOf, type RecordingRow } from './store';

/** As what a recording can be taken along, beside the film. */
export const EXPORTS = ['sound.mp3', 'writing.txt', 'writing.csv'] as const;
export type Export = (typeof EXPORTS)[number];

/** So many sounds are encoded at once; classes that are on need the machine. */
const MOST_AT_ONCE = 2;
let encoding = 0;

interface Asked {
  row: RecordingRow;
  /** The prepared film. */
  file: string;
  zone: string;
  watcher: Watcher;
  /** What the file is called, without its ending. */
  name: string;
}

export async function sendExport(ctx: Context, kind: Export, asked: Asked, res: Response): Promise<void> {
  const [events, parts] = await Promise.all([
    recordedEvents(ctx.db, asked.row.sessionId, asked.watcher),
    partsOf(ctx.db, asked.row.id),
  ]);
  if (kind === 'sound.mp3') {
    const chapters = chaptersOf(parts, events);
    return sendSound(asked, chapterMetadata(asked.row.title, chapters, Number(asked.row.lengthMs)), res);
  }
  const lines = writtenLines(parts, events);
  res.attachment(`${asked.name}.${kind.split('.')[1]}`);
  if (kind === 'writing.txt') res.type('text/plain; charset=utf-8').send(writtenText(lines, asked.zone));
  else
    res.type('text/csv; charset=utf-8').send(
      `\uFEFF${writeCsv(
        ['When', 'Seconds into the recording', 'Who', 'What'],
        lines.map((l) => [new Date(l.at).toISOString(), String(Math.round(l.position / 1000)), l.by, l.text]),
      )}`,
    );
}

/**
 * The sound alone, with its chapters. It is made whole before it is sent: its head says how long it is. Who goes away ends
 * the making.
 */
async function sendSound({ file, name }: Asked, metadata: string, res: Response): Promise<void> {
  if (encoding >= MOST_AT_ONCE)
    throw new AppError('busy', 'Others take sound along just now. Try again in a moment.');
  encoding++;
  const made = path.join(tmpdir(), `nimble-bell-${newId()}`);
  const leaving = new AbortController();
  const left = () => leaving.abort();
  res.on('close', left);
  try {
    await writeFile(`${made}.txt`, metadata);
    const source = ['-v', 'error', '-nostdin', '-y', '-i', file, '-i', `${made}.txt`, '-map', '0:a'];
    const sound = ['-map_metadata', '1', '-map_chapters', '1', '-c:a', 'libmp3lame', '-q:a', '4'];
    await promisify(execFile)('ffmpeg', [...source, ...sound, '-id3v2_version', '3', `${made}.mp3`], {
      signal: leaving.signal,
    });
    res.off('close', left);
    res.attachment(`${name}.mp3`);
    res.type('audio/mpeg');
    await pipeline(createReadStream(`${made}.mp3`), res);
  } catch (error) {
    if (!leaving.signal.aborted && !res.destroyed) throw error;
  } finally {
    encoding--;
    await Promise.all(['.txt', '.mp3'].map((ending) => rm(made + ending, { force: true })));
  }
}

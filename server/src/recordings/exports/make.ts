import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { chapterMetadata, filmArguments } from '@nimble-bell/core/recording';
import { teaches } from '@nimble-bell/core/roster';
import { membersWhere } from '../../accounts/store';
import type { Context } from '../../context';
import { exportsDir, folderOf, readyDir, runFar } from '../files';
import { mp3Arguments } from '../listening/sound';
import { recordingsWhere, type RecordingRow } from '../store';
import { picturesTo, toldTo } from '../told';
import { mayHave } from '../watchable';
import { writeArchive } from './archive';
import { drawBoard } from './board';
import { drawSlides } from './slides';
import { exportById, noteMade, noteMaking, noteUnmade, withoutOf, type ExportRow } from './store';

/** How far it is, is said so often at most, ms; whether it is still wanted is asked with it. */
const SAID_MS = 1000;
const DAY_MS = 86_400_000;

/** So long it is kept. */
export const goneAt = (madeAt: number): number => madeAt + DAY_MS;

/** Makes what somebody asked for, if they may have it still; what is not wanted any more ends in the middle. */
export async function makeExport(ctx: Context, id: string): Promise<void> {
  const asked = await exportById(ctx.db, id);
  if (!asked || !(await noteMaking(ctx.db, id, 0))) return;
  const [row] = await recordingsWhere(ctx.db, 'r.id', asked.recording);
  const [member] = await membersWhere(ctx.db, 'm.id = ?', [asked.member]);
  if (!row?.file || row.state !== 'ready' || !member || !mayHave(ctx, row, member))
    return void (await noteUnmade(ctx.db, id));
  const leaving = new AbortController();
  let last = 0;
  const far = (ms: number) => {
    const now = performance.now();
    if (now - last < SAID_MS) return;
    last = now;
    void noteMaking(ctx.db, id, Math.min(0.99, ms / Math.max(1, row.lengthMs)))
      .then((wanted) => wanted || leaving.abort())
      .catch(() => {});
  };
  const folder = await folderOf(exportsDir(ctx), '.');
  const ending = asked.kind.split('.')[1]!;
  const file = `${id}.${ending}`;
  const work = path.join(folder, `${id}-work.${ending}`);
  try {
    const watcher = { member: member.id, role: member.role };
    await write(ctx, asked, { row, zone: member.zone, watcher, work, far, signal: leaving.signal });
    const { size } = await stat(work);
    const sha256 = await hashOf(work);
    await rename(work, path.join(folder, file));
    if (!(await noteMade(ctx.db, id, { file, bytes: size, sha256, without: withoutOf(row), now: ctx.now() })))
      await rm(path.join(folder, file), { force: true });
  } catch (error) {
    if (leaving.signal.aborted) return;
    // It is asked for anew by whoever still wants it.
    ctx.log.warn({ why: String(error), export: id }, 'not made');
    await noteUnmade(ctx.db, id);
  } finally {
    for (const rest of [work, `${work}.txt`, `${work}.board`, `${work}.slides`])
      await rm(rest, { recursive: true, force: true });
  }
}

/** SHA-256 of a file, in hexadecimal. */
async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

export interface Making {
  row: RecordingRow;
  zone: string;
  watcher: { member: string; role: Parameters<typeof teaches>[0] };
  work: string;
  far: (ms: number) => void;
  signal: AbortSignal;
}

async function write(ctx: Context, { kind }: ExportRow, making: Making): Promise<void> {
  const { row, watcher, work, far, signal } = making;
  const ready = (file: string) => path.join(readyDir(ctx), file);
  const length = row.lengthMs;
  const sound = ready(row.file!);
  if (kind === 'archive.zip') return writeArchive(ctx, making);
  if (kind === 'sound.mp3') {
    const { chapters } = await toldTo(ctx.db, row, watcher);
    await writeFile(`${work}.txt`, chapterMetadata(row.title, chapters, length));
    return runFar(mp3Arguments(sound, `${work}.txt`, work), { far, signal });
  }
  const pictures = (await picturesTo(ctx.db, row, watcher)).map((p) => ({ ...p, file: ready(p.file) }));
  const told = await toldTo(ctx.db, row, watcher);
  const board = await drawBoard(told, { length, folder: `${work}.board`, signal });
  const slides = await drawSlides(ctx, told, { length, folder: `${work}.slides`, signal });
  const arrangement = kind.startsWith('beside') ? 'beside' : 'corner';
  const film = { sound, length, pictures, board, slides, arrangement } as const;
  await runFar(filmArguments(film, kind.endsWith('mp4') ? 'mp4' : 'webm', work), { far, signal });
}

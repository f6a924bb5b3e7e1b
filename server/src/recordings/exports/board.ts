import { rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { boardSvg, DARKER } from '@nimble-bell/core/board';
import { boardFilm, standing, type BoardFrame, type FilmBoard } from '@nimble-bell/core/recording';
import { folderOf, runFar } from '../files';
import type { Told } from '../told';

/** So wide a film is, pixels. */
const WIDTH = 1280;

/** Draws a recording's board as pictures in a folder of its own, for a film; null where nothing was drawn. */
export async function drawBoard(
  { events, parts }: Pick<Told, 'events' | 'parts'>,
  { length, folder, signal }: { length: number; folder: string; signal: AbortSignal },
): Promise<FilmBoard | null> {
  const { frames, shown } = boardFilm(events, parts, length);
  if (!shown.length) return null;
  const into = await folderOf(folder, '.');
  let drawn = 0;
  for (const run of runsOf(frames)) {
    await drawRun(into, drawn, run, signal);
    drawn += run.length;
  }
  const list = path.join(into, 'frames.txt');
  const files = frames.map(({ at }, i) => ({ at, file: path.join(into, `${i}.png`) }));
  await writeFile(list, standing(files, length));
  return { list, at: frames[0]!.at, shown };
}

/** Frames that only add to one another together. */
function runsOf(frames: readonly BoardFrame[]): BoardFrame[][] {
  const runs: BoardFrame[][] = [];
  for (const frame of frames) {
    const run = runs.at(-1);
    if (run && frame.added) run.push(frame);
    else runs.push([frame]);
  }
  return runs;
}

/** Of each frame what it adds, over those before it: a board that is full costs no more than one that is not. */
async function drawRun(into: string, first: number, run: readonly BoardFrame[], signal: AbortSignal) {
  const sheets = run.map(({ on, added }, i) => ({
    file: path.join(into, `${first + i}.svg`),
    svg: boardSvg(added ?? on, WIDTH),
  }));
  for (const { file, svg } of sheets) await writeFile(file, svg);
  const start = ['-start_number', String(first)];
  const all = (ending: string) => path.join(into, `%d.${ending}`);
  await runFar(
    [
      ...['-y', '-v', 'error', '-nostdin', ...start, '-i', all('svg')],
      ...['-vf', DARKER, '-frames:v', String(run.length), ...start, all('png')],
    ],
    { far: () => {}, signal },
  );
  for (const { file } of sheets) await rm(file);
}

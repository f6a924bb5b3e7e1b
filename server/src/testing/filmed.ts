import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

/** A frame of a film at a second, or a picture, as a filter leaves it: red, green, blue of each pixel. */
async function pixels(film: string, second: number, filter: string): Promise<number[][]> {
  const { stdout } = await promisify(execFile)(
    'ffmpeg',
    [
      ...['-v', 'error', '-ss', String(second), '-i', film, '-frames:v', '1'],
      ...['-vf', filter, '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'],
    ],
    { encoding: 'buffer' },
  );
  return Array.from({ length: stdout.length / 3 }, (_, i) => [...stdout.subarray(i * 3, i * 3 + 3)]);
}

/** The colour of a film at a second, or of a picture, around a place of its pixels, as red, green, blue. */
export const colourAt = async (film: string, second: number, x: number, y: number, around = 8) =>
  (await pixels(film, second, `crop=${around}:${around}:${x}:${y},scale=1:1`))[0] ?? [];

/** The colours of a film at a second down a column of its pixels, each of two rows. */
export const columnAt = (film: string, second: number, x: number, [from, until]: readonly [number, number]) =>
  pixels(film, second, `crop=2:${until - from}:${x}:${from},scale=1:${(until - from) / 2}`);

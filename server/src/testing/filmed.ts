import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

/** The colour of a film at a second, or of a picture, around a place of its pixels, as red, green, blue. */
export async function colourAt(film: string, second: number, x: number, y: number, around = 8) {
  const { stdout } = await promisify(execFile)(
    'ffmpeg',
    [
      ...['-v', 'error', '-ss', String(second), '-i', film, '-frames:v', '1'],
      ...['-vf', `crop=${around}:${around}:${x}:${y},scale=1:1`, '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'],
    ],
    { encoding: 'buffer' },
  );
  return [...stdout.subarray(0, 3)];
}

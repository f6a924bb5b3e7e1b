import { rm } from 'node:fs/promises';
import path from 'node:path';
import { common, lengthOf, picturesOf, type Stretch } from '@nimble-bell/core/recording';
import { teaches, type Role } from '@nimble-bell/core/roster';
import type { Context } from '../../context';
import { cutPicture } from '../cuts/picture';
import { readyDir } from '../files';
import type { PictureFile } from '../store';
import { joinFiles, type Made, type Part } from './join';

/**
 * The cameras of students as far as they belong in a recording: of each one's pictures only the stretches, ms of the
 * recording, that are given for them. What is beside those is in no file.
 */
export async function cutCameras(
  ctx: Context,
  recording: string,
  parts: readonly Part[],
  made: Made,
  kept: ReadonlyMap<string, readonly Stretch[]>,
): Promise<PictureFile[]> {
  const pictures: PictureFile[] = [];
  for (const [i, part] of parts.entries()) {
    const begins = lengthOf(parts.slice(0, i));
    const slices = (made.get(part.id) ?? [])
      .flatMap((p) => p.slices)
      .filter((s) => s.kind === 'camera' && !teaches(s.role as Role));
    for (const { member, at, length, files } of picturesOf(slices)) {
      const from = begins + at;
      const shown = common([{ from, until: from + length }], kept.get(member) ?? []);
      if (!shown.length) continue;
      const named = (name: string) => path.join(recording, `${name}.webm`);
      const whole = path.join(readyDir(ctx), named('camera-work'));
      try {
        await joinFiles(ctx, recording, files, whole, true);
        for (const s of shown) {
          const file = named(`camera-${pictures.length}`);
          await cutPicture(
            whole,
            { from: s.from - from, until: s.until - from },
            path.join(readyDir(ctx), file),
          );
          const [shownAt, until] = [Math.max(0, Math.round(s.from)), Math.round(s.until)];
          pictures.push({ kind: 'camera', at: shownAt, length: until - shownAt, file, member });
        }
      } finally {
        await rm(whole, { force: true });
      }
    }
  }
  return pictures;
}

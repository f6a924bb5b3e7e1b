import { rename, writeFile } from 'node:fs/promises';
import { writeVtt } from '@nimble-bell/core/captions';
import { classCaptions, keptOf, type Part } from '@nimble-bell/core/recording';
import { newId, type Context } from '../context';
import { eventsOf } from '../room/store';
import { captionLanguages, captionsFile } from './captions';
import { readyDir } from './files';
import type { RecordingRow } from './store';

/** What is written in class is English until somebody says otherwise. */
const WRITTEN_IN = 'en';

/** What was written down in class is the recording's captions, to be mended there; where it has some, those stay. */
export async function keepClassCaptions(
  ctx: Context,
  { id, sessionId, plan }: Pick<RecordingRow, 'id' | 'sessionId' | 'plan'>,
  parts: readonly Part[],
): Promise<void> {
  const folder = readyDir(ctx);
  if ((await captionLanguages(folder, id)).length) return;
  const cues = classCaptions(keptOf(await eventsOf(ctx.db, sessionId), plan?.leavesOut ?? []), parts);
  if (!cues.length) return;
  // It gets its name when all of it is there.
  const file = captionsFile(folder, id, WRITTEN_IN);
  const beside = `${file}.${newId()}`;
  await writeFile(beside, writeVtt(cues));
  await rename(beside, file);
}

import { readFile } from 'node:fs/promises';
import { readCaptions, type Cue } from '@nimble-bell/core/captions';
import { ANYBODY, isToAll } from '@nimble-bell/core/recording';
import { wordsOf } from '@nimble-bell/core/watching';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { captionLanguages, captionsFile } from '../recordings/captions';
import { recordedEvents } from '../recordings/events';
import { readyDir } from '../recordings/files';
import { partsOf, recordingsWhere } from '../recordings/store';
import { holdWords, keepWords, withoutWords } from './store';

/** The captions of a recording in all its languages; a file that cannot be read has none. */
async function cuesOf(ctx: Context, recording: string): Promise<Cue[]> {
  const cues: Cue[] = [];
  for (const language of await captionLanguages(readyDir(ctx), recording)) {
    const from = captionsFile(readyDir(ctx), recording, language);
    try {
      cues.push(...readCaptions(await readFile(from, 'utf8')));
    } catch (error) {
      ctx.log.warn({ why: String(error), recording, language }, 'captions were not read');
    }
  }
  return cues;
}

/**
 * Makes a recording searchable: what was said by its captions, written to the class, put on the board, and its chapters.
 * Of two at once the later one reads what the earlier one left.
 */
export const indexWords = (ctx: Context, recording: string): Promise<void> =>
  transaction(ctx.db, async (db) => {
    await holdWords(db, recording);
    const [row] = await recordingsWhere(db, 'r.id', recording);
    if (!row?.file) return;
    const events = (await recordedEvents(db, row, ANYBODY)).filter(isToAll);
    const words = wordsOf(await partsOf(db, recording), events, await cuesOf(ctx, recording));
    await keepWords(db, recording, words, ctx.now());
  });

/** Those that are prepared and not searchable, or not as their captions are now. */
export async function indexMissing(ctx: Context): Promise<void> {
  for (const recording of await withoutWords(ctx.db)) await indexWords(ctx, recording);
}

import type { Cue } from '@nimble-bell/core/captions';
import { ANYBODY, isToAll } from '@nimble-bell/core/recording';
import { wordsOf } from '@nimble-bell/core/watching';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { captionLanguages, captionsTold } from '../recordings/captions';
import { readyDir } from '../recordings/files';
import { recordingsWhere, type RecordingRow } from '../recordings/store';
import { toldTo } from '../recordings/told';
import { readIn } from '../slides/page';
import { holdWords, keepWords, withoutWords } from './store';

/** The captions of a recording in all its languages; a file that cannot be read has none. */
async function cuesOf(ctx: Context, row: RecordingRow): Promise<Cue[]> {
  const cues: Cue[] = [];
  for (const language of await captionLanguages(readyDir(ctx), row.id)) {
    try {
      cues.push(...(await captionsTold(readyDir(ctx), row, language)));
    } catch (error) {
      ctx.log.warn({ why: String(error), recording: row.id, language }, 'captions were not read');
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
    if (!row?.whole.file) return;
    const { parts, chapters, events } = await toldTo(db, row, ANYBODY);
    const toAll = events.filter(isToAll);
    const read = await readIn(ctx, { parts, events: toAll });
    const told = { parts, chapters, events: toAll, cues: await cuesOf(ctx, row), read };
    await keepWords(db, recording, wordsOf(told), ctx.now());
  });

/** Those that are prepared and not searchable, or not as their captions are now. */
export async function indexMissing(ctx: Context): Promise<void> {
  for (const recording of await withoutWords(ctx.db)) await indexWords(ctx, recording);
}

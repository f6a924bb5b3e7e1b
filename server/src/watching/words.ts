import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { readCaptions, type Cue } from '@nimble-bell/core/captions';
import { CLASS } from '@nimble-bell/core/room';
import { chaptersOf, positionOf } from '@nimble-bell/core/recording';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { recordedEvents } from '../recordings/events';
import { captionLanguages, captionsFile } from '../recordings/captions';
import { readyDir } from '../recordings/prepare';
import { partsOf, recordingsWhere } from '../recordings/store';
import { keepWords, withoutWords, type KeptWord } from './store';

/** The captions of a recording in all its languages; a file that cannot be read has none. */
export async function cuesOf(ctx: Context, file: string): Promise<Cue[]> {
  const cues: Cue[] = [];
  for (const language of await captionLanguages(readyDir(ctx), file)) {
    const text = await readFile(path.join(readyDir(ctx), captionsFile(file, language)), 'utf8').catch(
      () => '',
    );
    try {
      cues.push(...readCaptions(text));
    } catch (error) {
      ctx.log.warn({ why: String(error), file, language }, 'captions were not read');
    }
  }
  return cues;
}

/** Makes a recording searchable: what was said by its captions, written to the class, put on the board, and its chapters. */
export async function indexWords(ctx: Context, recording: string): Promise<void> {
  const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
  if (!row?.file) return;
  const [events, spans] = await Promise.all([
    recordedEvents(ctx.db, row.sessionId),
    partsOf(ctx.db, recording),
  ]);
  const parts = spans.map((p) => ({ from: Number(p.from), until: Number(p.until ?? p.from) }));
  const words: KeptWord[] = [
    ...(await cuesOf(ctx, row.file)).map((c): KeptWord => ({
      ...{ position: c.from, kind: 'said', text: c.text, member: null },
    })),
    ...chaptersOf(parts, events).map(({ title, position }): KeptWord => ({
      ...{ position, kind: 'chapter', text: title, member: null },
    })),
  ];
  for (const event of events)
    if (event.type === 'said' && event.addressee.to === 'class' && event.place === CLASS)
      words.push({
        position: positionOf(parts, event.at),
        kind: 'written',
        text: event.text,
        member: event.from,
      });
    else if (event.type === 'textPut' && event.place === CLASS)
      words.push({
        position: positionOf(parts, event.at),
        kind: 'drawn',
        text: event.text.text,
        member: event.by,
      });
  await transaction(ctx.db, (db) => keepWords(db, recording, words, ctx.now()));
}

/** Those that were prepared and are not searchable yet. */
export async function indexMissing(ctx: Context): Promise<void> {
  for (const recording of await withoutWords(ctx.db)) await indexWords(ctx, recording);
}

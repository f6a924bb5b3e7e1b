import type { CourseFound } from '@nimble-bell/core/api';
import type { Leavable } from '@nimble-bell/core/settings';
import { placesOf, wordsIn, type Found } from '@nimble-bell/core/watching';
import type { Context } from '../context';
import { recordingsWhere, type RecordingRow } from '../recordings/store';
import { linesWith, recordingsWith } from './store';

/** So many places are found at once, and so many of one recording, so that one lesson does not hide the others. */
const MOST = 60;
const MOST_OF_ONE = 10;
/** So many recordings are read at once. */
const READ = MOST / MOST_OF_ONE;

/** What is found of what a recording can be without; who has the floor stands in the chapters. */
const FOUND_BY: Partial<Record<Leavable, readonly Found['kind'][]>> = {
  writing: ['written'],
  board: ['drawn', 'shown'],
  captions: ['said'],
  names: ['chapter'],
};

/** What a recording is without by now is found in it no more, whatever it was when it was made searchable. */
const isLeftOut = ({ plan }: RecordingRow, kind: Found['kind']) =>
  plan?.leavesOut?.some((left) => FOUND_BY[left]?.includes(kind));

/**
 * Where every word of what is looked for stands in a course's recordings, as the beginning of a word, without accents: the
 * newest recording first, and of those alone that may be watched.
 */
export async function searched(
  ctx: Context,
  { course, q, may }: { course: string; q: string; may: (row: RecordingRow) => boolean },
): Promise<CourseFound[]> {
  const words = wordsIn(q);
  if (!words.length) return [];
  // The store takes й and и for two letters: what is typed is asked for beside what it is compared as.
  const typed = q.normalize('NFC').match(/[\p{L}\p{N}]{2,}/gu) ?? [];
  const having = await recordingsWith(ctx.db, course, words);
  const found: CourseFound[] = [];
  for (let i = 0; i < having.length && found.length < MOST; i += READ) {
    const some = (await recordingsWhere(ctx.db, 'r.id', having.slice(i, i + READ))).filter(may);
    if (!some.length) continue;
    const ids = some.map((row) => row.id);
    const lines = await linesWith(ctx.db, ids, [...new Set([...words, ...typed])]);
    for (const row of some) {
      const told = lines.filter((line) => line.recording === row.id && !isLeftOut(row, line.kind));
      const { id: recording, title, startsAt } = row;
      for (const place of placesOf(told, words).slice(0, MOST_OF_ONE))
        found.push({ recording, title, startsAt, ...place });
    }
  }
  return found.slice(0, MOST);
}

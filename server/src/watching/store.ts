import type { Role } from '@nimble-bell/core/roster';
import type { Found } from '@nimble-bell/core/watching';
import { json, one, rows, run, type Db } from '../db/pool';

/** Whoever makes a recording searchable does it alone. */
export const holdWords = (db: Db, recording: string) =>
  one(db, 'SELECT id FROM recordings WHERE id = ? FOR UPDATE', [recording]);

/** Its captions are about to be others: if nothing more comes of it, it is made searchable again later. */
export const wordsAreOld = (db: Db, recording: string) =>
  run(db, 'UPDATE recordings SET words_at = NULL WHERE id = ?', [recording]);

/** Keeps what can be searched of a recording, in place of what was kept. */
export async function keepWords(db: Db, recording: string, words: readonly Found[], now: number) {
  await run(db, 'DELETE FROM recording_words WHERE recording_id = ?', [recording]);
  if (words.length)
    await run(db, 'INSERT INTO recording_words (recording_id, position_ms, kind, member_id, text) VALUES ?', [
      words.map((w) => [recording, Math.round(w.position), w.kind, w.member, w.text]),
    ]);
  await run(db, 'UPDATE recordings SET words_at = ? WHERE id = ?', [now, recording]);
}

export const withoutWords = async (db: Db): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      "SELECT id FROM recordings WHERE state = 'ready' AND words_at IS NULL LIMIT 500",
    )
  ).map((r) => r.id);

export interface FoundWord {
  recording: string;
  position: number;
  kind: Found['kind'];
  text: string;
}

/** At most so many are found at once. */
const MOST = 60;

/** A search as the store takes it: words that the index has, and others that are read for among what it gives. */
export interface Searched {
  indexed: string[];
  others: string[];
}

/** What the index leaves out: words of fewer letters, and these (InnoDB's own list). */
const SHORTEST = 3;
const LEFT_OUT = new Set(
  'a about an are as at be by com de en for from how i in is it la of on or that the this to was what when where who will with und www'.split(
    ' ',
  ),
);

/**
 * What is looked for, made of letters and digits alone: no operator of the search reaches it. Null where there is nothing of
 * two letters at least.
 */
export function searchable(q: string): Searched | null {
  const words = (q.match(/[\p{L}\p{N}]+/gu) ?? []).filter((w) => [...w].length > 1);
  if (!words.length) return null;
  const has = (w: string) => [...w].length >= SHORTEST && !LEFT_OUT.has(w.toLowerCase());
  return { indexed: words.filter(has), others: words.filter((w) => !has(w)) };
}

const FOUND = `SELECT w.recording_id AS recording, w.position_ms AS position, w.kind, w.text
                 FROM recording_words w WHERE w.recording_id IN (?)`;
/** So many of the newest recordings are read for words that stand everywhere. */
const NEWEST = 40;

/**
 * Words of some recordings, the newest of them first: the likeliest. Several words that stand everywhere are found in the
 * newest at once, where weighing all the places in which they stand would take long.
 */
export async function findWords(
  db: Db,
  recordings: readonly string[],
  asked: Searched,
): Promise<FoundWord[]> {
  const { indexed, others } = asked;
  if (indexed.length + others.length > 1) {
    const common = await findCommon(db, recordings.slice(0, NEWEST), [...indexed, ...others]);
    if (common.length === MOST) return common;
  }
  return findWeighed(db, recordings, asked);
}

async function findCommon(db: Db, recordings: readonly string[], words: readonly string[]) {
  const begins = words.map(() => '(w.text LIKE ? OR w.text LIKE ?)').join(' AND ');
  const found = await rows<FoundWord>(db, `${FOUND} AND ${begins} LIMIT ${MOST}`, [
    [...recordings],
    ...words.flatMap((w) => [`${w}%`, `% ${w}%`]),
  ]);
  const place = new Map(recordings.map((r, i) => [r, i]));
  return found.sort(
    (a, b) => place.get(a.recording)! - place.get(b.recording)! || Number(a.position) - Number(b.position),
  );
}

function findWeighed(db: Db, recordings: readonly string[], { indexed, others }: Searched) {
  const query = indexed.map((w) => `+${w}*`).join(' ');
  const match = 'MATCH (w.text) AGAINST (? IN BOOLEAN MODE)';
  const asked = [...(query ? [match] : []), ...others.map(() => 'w.text LIKE ?')];
  return rows<FoundWord>(
    db,
    `${FOUND} AND ${asked.join(' AND ')}
      ORDER BY ${query ? `${match} DESC, ` : ''}w.recording_id, w.position_ms LIMIT ${MOST}`,
    [[...recordings], ...(query ? [query] : []), ...others.map((w) => `%${w}%`), ...(query ? [query] : [])],
  );
}

export interface WatchedRow {
  member: string;
  position: number;
  stretches: number[];
  at: number;
}

const readWatched = ({
  stretches,
  ...row
}: Omit<WatchedRow, 'stretches'> & { stretches: unknown }): WatchedRow => ({
  ...row,
  stretches: json<number[]>(stretches),
});

export const watchedOf = async (db: Db, recording: string, member: string, forUpdate = false) => {
  const found = await one<Omit<WatchedRow, 'stretches'> & { stretches: unknown }>(
    db,
    `SELECT member_id AS member, position_ms AS position, stretches, at FROM watched
      WHERE recording_id = ? AND member_id = ?${forUpdate ? ' FOR UPDATE' : ''}`,
    [recording, member],
  );
  return found && readWatched(found);
};

export const keepWatched = (db: Db, recording: string, { member, position, stretches, at }: WatchedRow) =>
  run(
    db,
    'REPLACE INTO watched (recording_id, member_id, position_ms, stretches, at) VALUES (?, ?, ?, ?, ?)',
    [recording, member, Math.round(position), JSON.stringify(stretches), at],
  );

/** Who watched a recording, of those on the list, as they are called. */
export const watchersOf = async (db: Db, recording: string) =>
  (
    await rows<Omit<WatchedRow, 'stretches'> & { stretches: unknown; name: string; role: Role }>(
      db,
      `SELECT w.member_id AS member, w.position_ms AS position, w.stretches, w.at, m.called AS name, m.role
         FROM watched w JOIN members m ON m.id = w.member_id WHERE w.recording_id = ? ORDER BY m.called`,
      [recording],
    )
  ).map(({ name, role, ...row }) => ({ ...readWatched(row), name, role }));

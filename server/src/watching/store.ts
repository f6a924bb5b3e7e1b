import type { Role } from '@nimble-bell/core/roster';
import { isWhole, wordsIn, type Found } from '@nimble-bell/core/watching';
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
  await keepVocabulary(db, recording);
  await run(db, 'UPDATE recordings SET words_at = ? WHERE id = ?', [now, recording]);
}

/** What stands before each word of a vocabulary: InnoDB leaves out words of two letters and the commonest of English. */
const BEFORE = 'q';

/** The words by which a recording is found, as its lines are now. */
export async function keepVocabulary(db: Db, recording: string) {
  const lines = await rows<{ text: string }>(db, 'SELECT text FROM recording_words WHERE recording_id = ?', [
    recording,
  ]);
  const words = wordsIn(lines.map((l) => l.text).join('\n'));
  await run(db, 'REPLACE INTO recording_vocabulary (recording_id, words) VALUES (?, ?)', [
    recording,
    words.map((w) => BEFORE + w).join(' '),
  ]);
}

export const withoutWords = async (db: Db): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      "SELECT id FROM recordings WHERE state = 'ready' AND words_at IS NULL LIMIT 500",
    )
  ).map((r) => r.id);

/** In which recordings something that a member wrote is found. */
export const writtenIn = async (db: Db, member: string): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      'SELECT DISTINCT recording_id AS id FROM recording_words WHERE member_id = ?',
      [member],
    )
  ).map((r) => r.id);

export interface Line {
  recording: string;
  position: number;
  kind: Found['kind'];
  text: string;
}

/**
 * Which of a course's recordings have every word, the newest first. Words are letters and digits alone, so that no operator
 * is among them.
 */
export async function recordingsWith(db: Db, course: string, words: readonly string[]) {
  const query = words.map((w) => `+${BEFORE}${w}${isWhole(w) ? '' : '*'}`).join(' ');
  const found = await rows<{ id: string }>(
    db,
    `SELECT r.id FROM recording_vocabulary v JOIN recordings r ON r.id = v.recording_id
       JOIN sessions s ON s.id = r.session_id AND s.course_id = ?
      WHERE MATCH (v.words) AGAINST (? IN BOOLEAN MODE) ORDER BY s.starts_at DESC`,
    [course, query],
  );
  return found.map((r) => r.id);
}

/** The lines of some recordings in which one of the words may stand, each recording's in order of time. */
export async function linesWith(db: Db, recordings: readonly string[], words: readonly string[]) {
  const found = await rows<Line>(
    db,
    `SELECT recording_id AS recording, position_ms AS position, kind, text FROM recording_words
      WHERE recording_id IN (?) AND (${words.map(() => 'text LIKE ?').join(' OR ')}) ORDER BY recording_id, position_ms, id`,
    [[...recordings], ...words.map((w) => `%${w}%`)],
  );
  return found.map((line) => ({ ...line, position: Number(line.position) }));
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

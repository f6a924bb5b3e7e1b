import { one, rows, run, type Db } from '../db/pool';

/** What was done in a course, by whom and when, with the rows before and after: of its plan, of its list, of its rules. */
export type History = 'plan_changes' | 'list_changes' | 'rule_changes';

export interface Entry {
  id: string;
  courseId: string;
  at: number;
  by: string;
  words: string;
  /** The rows before and after. */
  body: unknown;
  /** Whether it takes another one back. */
  undoing: boolean;
  /** Whether neither it nor what came before can be taken back: everything was laid anew. */
  barrier?: boolean;
}

/** What columns hold of an entry's words. */
const LONGEST = 255;

export const keepEntry = (db: Db, history: History, entry: Entry) => keepEntries(db, history, [entry]);

/** Keeps the entries of several courses in one statement. */
export const keepEntries = (db: Db, history: History, entries: readonly Entry[]) =>
  run(db, `INSERT INTO ${history} (id, course_id, at, made_by, words, body, undoing, barrier) VALUES ?`, [
    entries.map(({ id, courseId, at, by, words, body, undoing, barrier = false }) => [
      ...[id, courseId, at, by, words.slice(0, LONGEST), JSON.stringify(body), undoing, barrier],
    ]),
  ]);

/** The latest entries that stand, newest first. */
export const standingEntries = (db: Db, history: History, courseId: string, most: number) =>
  rows<{ id: string; words: string; at: number; body: unknown }>(
    db,
    `SELECT id, words, at, body FROM ${history} WHERE course_id = ? AND undone_at IS NULL AND NOT undoing
        AND place > COALESCE((SELECT MAX(place) FROM ${history} WHERE course_id = ? AND barrier), 0)
      ORDER BY place DESC LIMIT ?`,
    [courseId, courseId, most],
  );

export const noteUndone = (db: Db, history: History, now: number, entries: readonly string[]) =>
  run(db, `UPDATE ${history} SET undone_at = ? WHERE id IN (?)`, [now, [...entries]]);

/** The latest entry; the empty text where there is none. */
export const latestOf = async (db: Db, history: History, courseId: string): Promise<string> =>
  (
    await one<{ id: string }>(
      db,
      `SELECT id FROM ${history} WHERE course_id = ? ORDER BY place DESC LIMIT 1`,
      [courseId],
    )
  )?.id ?? '';

/** What came after an entry, newest first. */
export const entriesAfter = (db: Db, history: History, courseId: string, id: string) =>
  rows<{ by: string; words: string; at: number }>(
    db,
    `SELECT made_by AS \`by\`, words, at FROM ${history}
      WHERE course_id = ? AND place > COALESCE((SELECT place FROM ${history} WHERE id = ? AND course_id = ?), 0) ORDER BY place DESC`,
    [courseId, id, courseId],
  );

import { MATERIAL, type MaterialRow } from '../materials/store';
import { one, rows, run, type Db } from '../db/pool';

/** The files of a course, and of one of its sessions: as they lie there now. */
export const filesFor = (db: Db, course: string, session: string) =>
  rows<MaterialRow>(
    db,
    `${MATERIAL} AND course_id = ? AND (session_id IS NULL OR session_id = ?) AND hash IS NOT NULL
       ORDER BY session_id IS NULL, at DESC`,
    [course, session],
  );

/** Whether a course has, or had, a file with this in it. */
export const hadFile = async (db: Db, course: string, hash: string): Promise<boolean> =>
  Boolean(
    await one<{ id: string }>(db, 'SELECT id FROM materials WHERE course_id = ? AND hash = ? LIMIT 1', [
      course,
      hash,
    ]),
  );

/** Whether a file with this in it lies in a course under this name now. */
export const filesNamed = async (db: Db, course: string, { id, name }: { id: string; name: string }) =>
  Boolean(
    await one<{ id: string }>(db, `${MATERIAL} AND course_id = ? AND hash = ? AND name = ? LIMIT 1`, [
      course,
      id,
      name,
    ]),
  );

/** What those who teach have noted to the pages of a deck, by page. */
export const pageNotesOf = (db: Db, course: string, deck: string) =>
  rows<{ page: number; text: string }>(
    db,
    'SELECT page, text FROM page_notes WHERE course_id = ? AND deck = ? ORDER BY page',
    [course, deck],
  );

export const keepPageNote = (db: Db, course: string, deck: string, page: number, text: string) =>
  text
    ? run(
        db,
        'INSERT INTO page_notes (course_id, deck, page, text) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE text = VALUES(text)',
        [course, deck, page, text],
      )
    : run(db, 'DELETE FROM page_notes WHERE course_id = ? AND deck = ? AND page = ?', [course, deck, page]);

/** What was noted in one course, for another as well: it is there as soon as the same file is. */
export const copyPageNotes = (db: Db, from: string, to: string) =>
  run(
    db,
    'INSERT IGNORE INTO page_notes (course_id, deck, page, text) SELECT ?, deck, page, text FROM page_notes WHERE course_id = ?',
    [to, from],
  );

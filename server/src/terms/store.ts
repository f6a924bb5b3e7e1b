import type { BellTimes, Term } from '@nimble-bell/core/api';
import { json, one, rows, run, type Db } from '../db/pool';

export interface TermRow extends Term {
  id: string;
  courses: number;
}

export async function termsOf(db: Db): Promise<TermRow[]> {
  const found = await rows<{ id: string; body: unknown; courses: number }>(
    db,
    "SELECT t.id, t.body, (SELECT COUNT(*) FROM courses c WHERE c.term_id = t.id AND c.rehearsal = '') AS courses FROM terms t",
  );
  return found
    .map(({ id, body, courses }) => ({ ...json<Term>(body), id, courses }))
    .sort((a, b) => (a.firstDay < b.firstDay ? -1 : 1));
}

export async function termById(db: Db, id: string): Promise<Term | null> {
  const row = await one<{ body: unknown }>(db, 'SELECT body FROM terms WHERE id = ?', [id]);
  return row && json<Term>(row.body);
}

export async function bellTimesOf(db: Db): Promise<BellTimes[]> {
  const found = await rows<{ id: string; name: string; periods: unknown }>(
    db,
    'SELECT id, name, periods FROM bell_times ORDER BY name',
  );
  return found.map((b) => ({ ...b, periods: json(b.periods) }));
}

/** The series of the college whose patterns speak of a set of bell times, with their courses. */
export async function seriesByBells(db: Db, bells: string) {
  const found = await rows<{ id: string; courseId: string; pattern: unknown }>(
    db,
    "SELECT id, course_id AS courseId, pattern FROM series WHERE JSON_VALUE(pattern, '$.bellTimes') = ?",
    [bells],
  );
  return found;
}

export const writeTerm = (db: Db, term: unknown, id: string) =>
  run(db, 'UPDATE terms SET body = ? WHERE id = ?', [JSON.stringify(term), id]);

export const seriesInTerm = (db: Db, termId: string) =>
  rows<{ id: string }>(
    db,
    "SELECT s.id FROM series s JOIN courses c ON c.id = s.course_id WHERE c.term_id = ? AND c.rehearsal = ''",
    [termId],
  );

export const otherBellsNamed = (db: Db, name: string, id: string) =>
  one(db, 'SELECT id FROM bell_times WHERE name = ? AND id <> ?', [name, id]);

export const writeBells = (
  db: Db,
  name: string,
  periods: { name: string; start: string; end: string }[],
  id: string,
) => run(db, 'UPDATE bell_times SET name = ?, periods = ? WHERE id = ?', [name, JSON.stringify(periods), id]);

export const insertTerm = (db: Db, id: string, term: unknown) =>
  run(db, 'INSERT INTO terms (id, body) VALUES (?, ?)', [id, JSON.stringify(term)]);

export const bellsNamed = (db: Db, name: string) =>
  one(db, 'SELECT id FROM bell_times WHERE name = ?', [name]);

export const insertBells = (
  db: Db,
  id: string,
  name: string,
  periods: { name: string; start: string; end: string }[],
) =>
  run(db, 'INSERT INTO bell_times (id, name, periods) VALUES (?, ?, ?)', [id, name, JSON.stringify(periods)]);

export const bellsKnown = (db: Db, id: string) => one(db, 'SELECT id FROM bell_times WHERE id = ?', [id]);
export const deleteBells = (db: Db, id: string) => run(db, 'DELETE FROM bell_times WHERE id = ?', [id]);

/** Locks on bell times and terms, until the transaction ends: shared by those who plan with them, one's own to change them. */
export const bellsShared = (db: Db) => rows(db, 'SELECT id FROM bell_times ORDER BY id LOCK IN SHARE MODE');
export const bellsForUpdate = (db: Db, id: string) =>
  one<{ id: string }>(db, 'SELECT id FROM bell_times WHERE id = ? FOR UPDATE', [id]);
export const termShared = (db: Db, id: string) =>
  one<{ id: string }>(db, 'SELECT id FROM terms WHERE id = ? LOCK IN SHARE MODE', [id]);
export const termForUpdate = (db: Db, id: string) =>
  one<{ id: string }>(db, 'SELECT id FROM terms WHERE id = ? FOR UPDATE', [id]);

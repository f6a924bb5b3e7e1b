import { nobodysAddress } from '@nimble-bell/core/roster';
import type { Settings } from '@nimble-bell/core/settings';
import { newId } from '../context';
import { one, rows, run, type Db } from '../db/pool';
import { deleteCourse } from '../keeping/store';

/** A session that is tried with a made-up class, in a course of its own. Instants in ms. */
export interface Rehearsal {
  course: string;
  session: string;
  /** The session that is rehearsed. */
  of: string;
  ofCourse: string;
  person: string;
  seed: number;
  size: number;
  begunAt: number;
  over: boolean;
  /** The class was dismissed. */
  held: boolean;
}

const REHEARSAL = `SELECT course_id AS course, session_id AS session, of_session AS \`of\`, of_course AS ofCourse, person_id AS person, seed, size,
                                        begun_at AS begunAt, is_over AS isOver,
                          EXISTS (SELECT 1 FROM sessions s WHERE s.id = session_id AND s.state = 'held') AS isHeld FROM rehearsals`;
type Raw = Omit<Rehearsal, 'over' | 'held'> & { isOver: number; isHeld: number };
const read = ({ isOver, isHeld, ...rehearsal }: Raw): Rehearsal => ({
  ...rehearsal,
  over: Boolean(isOver),
  held: Boolean(isHeld),
});

export const rehearsals = async (db: Db): Promise<Rehearsal[]> => (await rows<Raw>(db, REHEARSAL)).map(read);

export async function rehearsalIn(db: Db, session: string): Promise<Rehearsal | null> {
  const found = await one<Raw>(db, `${REHEARSAL} WHERE session_id = ?`, [session]);
  return found && read(found);
}

/** A course of its own: in no list, no calendar and no letter. */
export async function insertRehearsalCourse(
  db: Db,
  course: { termId: string; code: string; title: string; settings: Settings },
): Promise<string> {
  const id = newId();
  await run(
    db,
    'INSERT INTO courses (id, term_id, code, title, settings, rehearsal) VALUES (?, ?, ?, ?, ?, ?)',
    [id, course.termId, course.code, course.title, JSON.stringify(course.settings), id],
  );
  return id;
}

export const insertRehearsal = (db: Db, r: Omit<Rehearsal, 'over' | 'held'>) =>
  run(
    db,
    'INSERT INTO rehearsals (course_id, session_id, of_session, of_course, person_id, seed, size, begun_at) VALUES (?)',
    [[r.course, r.session, r.of, r.ofCourse, r.person, r.seed, r.size, r.begunAt]],
  );

/** The files, links and pages of a course for its rehearsal: the same files, under ids of their own. */
export const lendMaterials = (db: Db, from: { course: string; session: string }, to: Rehearsal['course']) =>
  run(
    db,
    `INSERT INTO materials (id, course_id, session_id, name, url, hash, type, bytes, made_by, at, for_teachers)
     SELECT LEFT(MD5(CONCAT(?, id)), 12), ?, NULL, name, url, hash, type, bytes, made_by, at, for_teachers
       FROM materials WHERE course_id = ? AND removed_at IS NULL AND (session_id IS NULL OR session_id = ?)`,
    [to, to, from.course, from.session],
  );

const ADDRESS = nobodysAddress('stand-in', '');

/** The address of a stand-in, by which they are found again. */
export const standInAddress = (course: string, nr: number): string =>
  nobodysAddress('stand-in', `${course}-${nr}`);

/** The stand-ins of a rehearsal by their number, with what they come in by. */
export async function linksOf(db: Db, course: string): Promise<Map<number, string>> {
  const found = await rows<{ email: string; link: string }>(
    db,
    `SELECT p.email, m.link_code AS link FROM members m JOIN people p ON p.id = m.person_id
      WHERE m.course_id = ? AND p.email LIKE ?`,
    [course, `${ADDRESS.split('@')[0]}${course}-%`],
  );
  return new Map(found.map(({ email, link }) => [Number(/-(\d+)@/.exec(email)![1]), link]));
}

/** Nobody is told where it is not rung in. */
export const neverMissed = (db: Db, session: string) =>
  run(db, 'UPDATE sessions SET missed_at = ends_at WHERE id = ?', [session]);

export const noteOver = (db: Db, session: string) =>
  run(db, 'UPDATE rehearsals SET is_over = TRUE WHERE session_id = ?', [session]);

/**
 * Whoever begins another has done with the one before. Begun at the same time, one after another: gives how many stand-ins
 * the others have until the transaction ends.
 */
export async function noteOverOf(db: Db, person: string): Promise<number> {
  await one(db, 'SELECT 1 AS held FROM college FOR UPDATE');
  await run(db, 'UPDATE rehearsals SET is_over = TRUE WHERE person_id = ?', [person]);
  const all = await one<{ size: number | null }>(
    db,
    'SELECT SUM(size) AS size FROM rehearsals WHERE NOT is_over',
  );
  return Number(all?.size ?? 0);
}

/** Everything of a rehearsal: its course with all that is in it, and its people. */
export async function deleteRehearsal(db: Db, { course }: Rehearsal) {
  await run(db, 'DELETE FROM rehearsals WHERE course_id = ?', [course]);
  await deleteCourse(db, course);
  await run(db, 'DELETE FROM people WHERE email LIKE ?', [`${ADDRESS.split('@')[0]}${course}-%`]);
}

import { randomInt } from 'node:crypto';
import { one, rows, run, type Db } from '../db/pool';

const DIGITS = 8;
const TRIES = 20;

/** Gives a PIN to everyone of a course with a telephone line who has none: eight digits, no two alike in the college. */
export async function givePins(db: Db, courseId: string) {
  const without = await rows<{ id: string }>(
    db,
    `SELECT m.id FROM members m JOIN courses c ON c.id = m.course_id
      WHERE m.course_id = ? AND m.pin IS NULL AND c.telephone IS NOT NULL`,
    [courseId],
  );
  for (const { id } of without)
    await run(db, 'UPDATE enrolments SET pin = ? WHERE id = ?', [await freePin(db), id]);
}

async function freePin(db: Db): Promise<string> {
  for (let i = 0; i < TRIES; i++) {
    const pin = String(randomInt(10 ** DIGITS)).padStart(DIGITS, '0');
    if (!(await one(db, 'SELECT id FROM enrolments WHERE pin = ?', [pin]))) return pin;
  }
  throw new Error('No free PIN was found.');
}

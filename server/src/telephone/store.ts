import { membersWhere, type MemberRow } from '../accounts/store';
import { one, rows, run, type Db } from '../db/pool';

/** Whose PIN this is on a line, unless their time is over. */
export async function memberByPin(db: Db, line: string, pin: string, now: number): Promise<MemberRow | null> {
  const [member] = await membersWhere(
    db,
    'm.pin = ? AND m.course_id IN (SELECT id FROM courses WHERE telephone = ?)',
    [pin, line],
  );
  return member && (member.linkUntil === null || member.linkUntil > now) ? member : null;
}

/** Whether any course is reached by this number. */
export const isLine = async (db: Db, number: string): Promise<boolean> =>
  (await one(db, 'SELECT 1 AS is_line FROM courses WHERE telephone = ? LIMIT 1', [number])) !== null;

/** The lines of these courses, by course. */
export const linesOf = async (db: Db, courses: readonly string[]): Promise<Map<string, string>> =>
  new Map(
    (
      await rows<{ id: string; line: string }>(
        db,
        'SELECT id, telephone AS line FROM courses WHERE id IN (?) AND telephone IS NOT NULL',
        [courses],
      )
    ).map(({ id, line }) => [id, line]),
  );

/** Every number that reaches a course. */
export const allLines = async (db: Db): Promise<string[]> =>
  (
    await rows<{ line: string }>(
      db,
      'SELECT DISTINCT telephone AS line FROM courses WHERE telephone IS NOT NULL ORDER BY telephone',
    )
  ).map((row) => row.line);

export const noteWrongPin = (db: Db, line: string, caller: string, now: number) =>
  run(db, 'INSERT INTO wrong_pins (line, caller, at) VALUES (?, ?, ?)', [line, caller, now]);

/** How many wrong PINs a line, and a caller on it, gave since an instant. */
export const wrongPinsSince = (db: Db, line: string, caller: string, since: number) =>
  one<{ all: number; own: number }>(
    db,
    'SELECT COUNT(*) AS `all`, COALESCE(SUM(caller = ?), 0) AS own FROM wrong_pins WHERE line = ? AND at > ?',
    [caller, line, since],
  );

export const forgetWrongPins = (db: Db, before: number) =>
  run(db, 'DELETE FROM wrong_pins WHERE at < ?', [before]);

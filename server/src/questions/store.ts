import type { PreparedInput, PreparedQuestion } from '@nimble-bell/core/api';
import { newId } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';

/** The most that one course keeps. */
export const MOST_PREPARED = 1000;

/** What a course has prepared, in the order of writing. */
export const preparedOf = async (db: Db, courseId: string): Promise<PreparedQuestion[]> =>
  (
    await rows<Omit<PreparedQuestion, 'question'> & { body: unknown }>(
      db,
      `SELECT id, body, part, seconds, asked_at AS askedAt, made_by AS \`by\`
         FROM prepared_questions WHERE course_id = ? ORDER BY nr`,
      [courseId],
    )
  ).map(({ body, askedAt, ...rest }) => ({
    ...rest,
    question: json<PreparedInput['question']>(body),
    askedAt: askedAt === null ? null : Number(askedAt),
  }));

export const countPrepared = async (db: Db, courseId: string): Promise<number> =>
  Number(
    (await one<{ n: number }>(db, 'SELECT COUNT(*) AS n FROM prepared_questions WHERE course_id = ?', [
      courseId,
    ]))!.n,
  );

export const insertPrepared = (
  db: Db,
  courseId: string,
  id: string,
  by: string,
  { question, part, seconds }: PreparedInput,
) =>
  run(
    db,
    'INSERT INTO prepared_questions (id, course_id, body, part, seconds, made_by) VALUES (?, ?, ?, ?, ?, ?)',
    [id, courseId, JSON.stringify(question), part, seconds, by],
  );

export const changePrepared = (
  db: Db,
  courseId: string,
  id: string,
  { question, part, seconds }: PreparedInput,
) =>
  run(db, 'UPDATE prepared_questions SET body = ?, part = ?, seconds = ? WHERE id = ? AND course_id = ?', [
    JSON.stringify(question),
    part,
    seconds,
    id,
    courseId,
  ]);

export const deletePrepared = (db: Db, courseId: string, id: string) =>
  run(db, 'DELETE FROM prepared_questions WHERE id = ? AND course_id = ?', [id, courseId]);

/** When the class was asked it last. */
export const keepAsked = (db: Db, session: string, id: string, at: number) =>
  run(
    db,
    `UPDATE prepared_questions q JOIN sessions s ON s.course_id = q.course_id
        SET q.asked_at = GREATEST(COALESCE(q.asked_at, 0), ?) WHERE q.id = ? AND s.id = ?`,
    [at, id, session],
  );

/** What one course has prepared, for another as well: nothing of it was asked there. */
export async function copyPrepared(db: Db, from: string, to: string): Promise<void> {
  for (const { by, ...prepared } of await preparedOf(db, from))
    await insertPrepared(db, to, newId(), by, prepared);
}

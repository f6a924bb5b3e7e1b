import { json, one, run, type Db } from '../db/pool';

/** Takes a request's id; false where it is taken. One that another transaction is at is waited for. */
export const claim = async (db: Db, id: string, now: number): Promise<boolean> =>
  (await run(db, 'INSERT IGNORE INTO requests (id, at) VALUES (?, ?)', [id, now])).affectedRows === 1;

export const keepAnswer = (db: Db, id: string, answer: unknown) =>
  run(db, 'UPDATE requests SET answer = ? WHERE id = ?', [JSON.stringify(answer ?? null), id]);

export async function answerOf(db: Db, id: string): Promise<unknown> {
  const row = await one<{ answer: unknown }>(db, 'SELECT answer FROM requests WHERE id = ?', [id]);
  return row?.answer === null || row?.answer === undefined ? null : json(row.answer);
}

/** Ids that nobody sends again. */
export const forgetBefore = (db: Db, at: number) => run(db, 'DELETE FROM requests WHERE at < ?', [at]);

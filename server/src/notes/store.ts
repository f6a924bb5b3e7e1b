import { one, rows, run, type Db } from '../db/pool';

/** A document that is written together in a place of a room. */
export interface DocumentOf {
  session: string;
  place: string;
  name: string;
}
const OF = 'session_id = ? AND place = ? AND name = ?';
const values = (of: DocumentOf) => [of.session, of.place, of.name];

/** One more update of it. */
export const addUpdate = (db: Db, of: DocumentOf, member: string | null, body: Buffer) =>
  run(
    db,
    'INSERT INTO room_documents (session_id, place, name, member_id, body) VALUES (?, ?, ?, ?, FROM_BASE64(?))',
    [...values(of), member, body.toString('base64')],
  );

/** All updates of it, in order. */
export const updatesOf = async (db: Db, of: DocumentOf): Promise<Buffer[]> =>
  (
    await rows<{ body: Buffer }>(db, `SELECT body FROM room_documents WHERE ${OF} ORDER BY nr`, values(of))
  ).map((row) => row.body);

/** How many bytes it holds, in how many updates. */
export async function sizeOf(db: Db, of: DocumentOf): Promise<{ bytes: number; updates: number }> {
  const row = await one<{ bytes: number; updates: number }>(
    db,
    `SELECT COALESCE(SUM(LENGTH(body)), 0) AS bytes, COUNT(*) AS updates FROM room_documents WHERE ${OF}`,
    values(of),
  );
  return { bytes: Number(row?.bytes ?? 0), updates: Number(row?.updates ?? 0) };
}

/** The updates so far, held so that nobody else puts others in their place meanwhile. */
export const heldUpdates = (db: Db, of: DocumentOf) =>
  rows<{ nr: number; body: Buffer }>(
    db,
    `SELECT nr, body FROM room_documents WHERE ${OF} ORDER BY nr FOR UPDATE`,
    values(of),
  );

export const removeUpdates = (db: Db, of: DocumentOf, numbers: readonly number[]) =>
  run(db, `DELETE FROM room_documents WHERE ${OF} AND nr IN (?)`, [...values(of), [...numbers]]);

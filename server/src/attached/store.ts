import { one, rows, run, type Db } from '../db/pool';

/** A file that was sent up in a session, by one of its people. */
export interface AttachedRow {
  id: string;
  session: string;
  member: string;
  name: string;
  hash: string;
  type: string;
  bytes: number;
  at: number;
}

const ATTACHED = `SELECT id, session_id AS session, member_id AS member, name, hash, type, bytes, at FROM attached`;

export const insertAttached = (db: Db, a: AttachedRow) =>
  run(
    db,
    'INSERT INTO attached (id, session_id, member_id, name, hash, type, bytes, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [a.id, a.session, a.member, a.name, a.hash, a.type, a.bytes, a.at],
  );

export const attachedById = (db: Db, id: string) => one<AttachedRow>(db, `${ATTACHED} WHERE id = ?`, [id]);

export const attachedIn = (db: Db, session: string, ids: readonly string[]) =>
  ids.length
    ? rows<AttachedRow>(db, `${ATTACHED} WHERE session_id = ? AND id IN (?)`, [session, [...ids]])
    : Promise.resolve([]);

/** How many somebody has sent up in a session. */
export const attachedBy = async (db: Db, session: string, member: string): Promise<number> =>
  Number(
    (
      await one<{ count: number }>(
        db,
        'SELECT COUNT(*) AS count FROM attached WHERE session_id = ? AND member_id = ?',
        [session, member],
      )
    )?.count ?? 0,
  );

import { one, rows, run, type Db } from '../../db/pool';

export interface ShareRow {
  id: string;
  recording: string;
  code: string;
  madeAt: number;
  until: number;
  opened: number;
}

const SHARE = `SELECT id, recording_id AS recording, code, made_at AS madeAt, until_at AS \`until\`, opened FROM recording_shares`;
const read = (row: ShareRow): ShareRow => ({
  ...row,
  madeAt: Number(row.madeAt),
  until: Number(row.until),
});

export const sharesOf = async (db: Db, recording: string): Promise<ShareRow[]> =>
  (await rows<ShareRow>(db, `${SHARE} WHERE recording_id = ? ORDER BY made_at DESC, id`, [recording])).map(
    read,
  );

export async function shareBy(db: Db, code: string): Promise<ShareRow | null> {
  const row = await one<ShareRow>(db, `${SHARE} WHERE code = ?`, [code]);
  return row && read(row);
}

export const insertShare = (db: Db, share: Omit<ShareRow, 'opened'> & { by: string }) =>
  run(
    db,
    'INSERT INTO recording_shares (id, recording_id, code, made_by, made_at, until_at) VALUES (?, ?, ?, ?, ?, ?)',
    [share.id, share.recording, share.code, share.by, share.madeAt, share.until],
  );

export const noteOpened = (db: Db, id: string) =>
  run(db, 'UPDATE recording_shares SET opened = opened + 1 WHERE id = ?', [id]);

/** Gives whether there was such a link of this recording. */
export const endShare = async (db: Db, recording: string, id: string): Promise<boolean> =>
  (await run(db, 'DELETE FROM recording_shares WHERE id = ? AND recording_id = ?', [id, recording]))
    .affectedRows > 0;

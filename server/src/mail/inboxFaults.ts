import { one, rows, run, type Db } from '../db/pool';

/** Notes that a letter could not be dealt with; gives whether it has been set aside by now. */
export async function noteFault(
  db: Db,
  uidl: string,
  fault: string,
  raw: string,
  most: number,
  now: number,
): Promise<boolean> {
  await run(
    db,
    `INSERT INTO inbox_faults (uidl, tries, at, fault) VALUES (?, 1, ?, ?)
       ON DUPLICATE KEY UPDATE tries = tries + 1, at = VALUES(at), fault = VALUES(fault)`,
    [uidl, now, fault.slice(0, 500)],
  );
  const noted = await one<{ tries: number }>(db, 'SELECT tries FROM inbox_faults WHERE uidl = ?', [uidl]);
  if (!noted || noted.tries < most) return false;
  await run(db, 'UPDATE inbox_faults SET set_aside = TRUE, raw = ? WHERE uidl = ?', [raw, uidl]);
  return true;
}

/** The letters that were set aside, newest first. */
export const setAside = (db: Db) =>
  rows<{ at: number; fault: string; subject: string | null }>(
    db,
    `SELECT at, fault, NULLIF(REGEXP_SUBSTR(raw, '(?mi)(?<=^subject: ).*'), '') AS subject
       FROM inbox_faults WHERE set_aside ORDER BY at DESC LIMIT 50`,
  );

import { one, run, type Db } from '../../db/pool';

/** Somebody's address; dead when the link that opened it is not theirs any more. */
export interface Listening {
  member: string;
  code: string;
  link: string | null;
}

const LISTENING = 'SELECT member_id AS member, code, link_code AS link FROM listening';

export const listeningOf = (db: Db, member: string) =>
  one<Listening>(db, `${LISTENING} WHERE member_id = ?`, [member]);

export const listeningBy = (db: Db, code: string) =>
  one<Listening>(db, `${LISTENING} WHERE code = ?`, [code]);

/** Another address in place of the one there is, if any: of several asked for at once, one stands. */
export const renewListening = (db: Db, { member, code, link }: Listening, now: number) =>
  run(
    db,
    `INSERT INTO listening (member_id, code, link_code, made_at) VALUES (?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE code = VALUES(code), link_code = VALUES(link_code), made_at = VALUES(made_at)`,
    [member, code, link, now],
  );

/**
 * What is listened to is made once, by whoever has time for it; `what`: its file, which is another when it is cut. One that
 * waits, or is being made, is not touched: whoever makes it holds its row.
 */
export async function queueListening(db: Db, recording: string, what: string, now: number) {
  const key = `listen/${recording}/${what}`;
  const known = await one<{ state: string }>(db, 'SELECT state FROM jobs WHERE job_key = ?', [key]);
  if (known?.state === 'queued') return;
  await run(
    db,
    `INSERT INTO jobs (kind, job_key, payload, due_at) VALUES ('listen', ?, ?, ?)
       ON DUPLICATE KEY UPDATE due_at = VALUES(due_at), attempts = 0, state = 'queued'`,
    [key, JSON.stringify({ recording }), now],
  );
}

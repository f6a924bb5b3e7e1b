import { one, run, type Db } from '../db/pool';

export const draftOf = (db: Db, person: string, key: string) =>
  one<{ body: unknown; at: number }>(
    db,
    'SELECT body, at FROM drafts WHERE person_id = ? AND draft_key = ?',
    [person, key],
  );

export const keepDraft = (db: Db, person: string, key: string, body: unknown, now: number) =>
  run(
    db,
    `INSERT INTO drafts (person_id, draft_key, body, at) VALUES (?, ?, ?, ?)
         ON DUPLICATE KEY UPDATE body = VALUES(body), at = VALUES(at)`,
    [person, key, JSON.stringify(body), now],
  );

export const dropDraft = (db: Db, person: string, key: string) =>
  run(db, 'DELETE FROM drafts WHERE person_id = ? AND draft_key = ?', [person, key]);

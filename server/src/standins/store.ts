import type { Letter } from '@nimble-bell/core/api';
import { one, rows, run, type Db } from '../db/pool';

export const mailsKept = (db: Db) =>
  rows<Letter>(
    db,
    'SELECT id, recipient AS `to`, sender AS `from`, subject, at FROM standin_mail ORDER BY id DESC LIMIT 500',
  );

export const countBySubject = (db: Db, subject: string) =>
  one<{ people: number; ids: number }>(
    db,
    `SELECT COUNT(DISTINCT recipient) AS people, COUNT(*) AS ids FROM standin_mail WHERE subject LIKE CONCAT(?, '%')`,
    [subject],
  );

export const mailById = (db: Db, id: number) =>
  one<Letter & { raw: string }>(
    db,
    'SELECT id, recipient AS `to`, sender AS `from`, subject, at, raw FROM standin_mail WHERE id = ?',
    [id],
  );

export const keepMail = (
  db: Db,
  {
    messageId,
    recipient,
    sender,
    subject,
    at,
    raw,
  }: { messageId: string; recipient: string; sender: string; subject: string; at: number; raw: string },
) =>
  run(
    db,
    'INSERT IGNORE INTO standin_mail (message_id, recipient, sender, subject, at, raw) VALUES (?, ?, ?, ?, ?, ?)',
    [messageId, recipient, sender, subject, at, raw],
  );

export const mailToAnswer = (db: Db, id: number) =>
  one<{ to: string; raw: string }>(db, 'SELECT recipient AS `to`, raw FROM standin_mail WHERE id = ?', [id]);

export const unfetched = (db: Db, recipient: string) =>
  rows<{ id: number }>(
    db,
    'SELECT id FROM standin_mail WHERE recipient = ? AND fetched_at IS NULL ORDER BY id LIMIT 200',
    [recipient],
  );

export const rawMail = (db: Db, id: number) =>
  one<{ raw: string }>(db, 'SELECT raw FROM standin_mail WHERE id = ?', [id]);

export const noteFetched = (db: Db, at: number, ids: readonly number[]) =>
  run(db, 'UPDATE standin_mail SET fetched_at = ? WHERE id IN (?)', [at, [...ids]]);

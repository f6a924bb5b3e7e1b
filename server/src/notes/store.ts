import type { Hand, Moved } from '@nimble-bell/core/hands';
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

/** The places of a room in which something of this name is written. */
export const placesOf = async (db: Db, session: string, name: string): Promise<string[]> =>
  (
    await rows<{ place: string }>(
      db,
      'SELECT DISTINCT place FROM room_documents WHERE session_id = ? AND name = ?',
      [session, name],
    )
  ).map((row) => row.place);

/** How many bytes it holds, in how many updates; and since when it is known how it was, null where nothing is. */
export async function sizeOf(
  db: Db,
  of: DocumentOf,
): Promise<{ bytes: number; updates: number; noted: number | null }> {
  const row = await one<{ bytes: number; updates: number; noted: number | null }>(
    db,
    `SELECT COALESCE(SUM(LENGTH(body)), 0) AS bytes, COUNT(*) AS updates,
        (SELECT MAX(at) FROM room_document_moments WHERE ${OF}) AS noted
      FROM room_documents WHERE ${OF}`,
    [...values(of), ...values(of)],
  );
  return {
    bytes: Number(row?.bytes ?? 0),
    updates: Number(row?.updates ?? 0),
    noted: row?.noted === null || row?.noted === undefined ? null : Number(row.noted),
  };
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

/** Those of these clients that are known. */
export const handsAmong = (db: Db, of: DocumentOf, clients: readonly number[]) =>
  rows<Hand>(
    db,
    `SELECT client, member_id AS member FROM room_document_hands WHERE ${OF} AND client IN (?)`,
    [...values(of), [...clients]],
  );

export const handsOf = (db: Db, of: DocumentOf) =>
  rows<Hand>(db, `SELECT client, member_id AS member FROM room_document_hands WHERE ${OF}`, values(of));

/** Notes whose hand each of these is; one that is known already stays whose it is. */
export const addHands = (db: Db, of: DocumentOf, member: string, clients: readonly number[]) =>
  run(db, 'INSERT IGNORE INTO room_document_hands (session_id, place, name, client, member_id) VALUES ?', [
    clients.map((client) => [...values(of), client, member]),
  ]);

export const movedOf = (db: Db, of: DocumentOf) =>
  rows<Moved>(
    db,
    `SELECT client, clock, length, member_id AS member FROM room_document_moved WHERE ${OF}`,
    values(of),
  );

export const addMoved = (db: Db, of: DocumentOf, moved: readonly Moved[]) =>
  run(
    db,
    'INSERT IGNORE INTO room_document_moved (session_id, place, name, client, clock, length, member_id) VALUES ?',
    [moved.map((m) => [...values(of), m.client, m.clock, m.length, m.member])],
  );

export const addMoment = (db: Db, of: DocumentOf, at: number, body: Buffer) =>
  run(
    db,
    'INSERT IGNORE INTO room_document_moments (session_id, place, name, at, body) VALUES (?, ?, ?, ?, FROM_BASE64(?))',
    [...values(of), at, body.toString('base64')],
  );

/** The instants at which it is known how it was, the earliest first. */
export const momentsOf = async (db: Db, of: DocumentOf): Promise<number[]> =>
  (
    await rows<{ at: number }>(db, `SELECT at FROM room_document_moments WHERE ${OF} ORDER BY at`, values(of))
  ).map((row) => Number(row.at));

/** The moment from this instant on. */
export const momentAfter = (
  db: Db,
  of: DocumentOf,
  at: number,
): Promise<{ at: number; body: Buffer } | null> =>
  one(db, `SELECT at, body FROM room_document_moments WHERE ${OF} AND at >= ? ORDER BY at LIMIT 1`, [
    ...values(of),
    at,
  ]);

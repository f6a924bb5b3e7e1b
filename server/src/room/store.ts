import type { Pool, PoolConnection } from 'mysql2/promise';
import { readEvent, versionOf, type Consequence, type StoredEvent } from '@nimble-bell/core/room';
import { newId } from '../context';
import { json, one, rows, run, transaction, type Db } from '../db/pool';
import { closeParts, openPart, queuePreparing } from '../recordings/store';
import { callHere, letInAlways } from '../roster/store';
import { beginSession, endSession, keepSegments } from '../sessions/store';
import { closeBooks } from '../after/books';

/** An event with the id of the command that made it, where one did. */
export interface EventRow {
  event: StoredEvent;
  command: string | null;
}

interface RawEvent {
  seq: number;
  at: number;
  version: number;
  body: unknown;
  command: string | null;
}

const COLUMNS = 'seq, at, version, body, command_id AS command';
const readRow = ({ seq, at, version, body, command }: RawEvent): EventRow => ({
  event: readEvent({ seq, at: Number(at), version, body: json(body) }),
  command,
});

/** What happened in a room after a place in its order. A row that holds no event is a fault of ours and is said. */
export const eventRowsAfter = async (db: Db, session: string, seq: number): Promise<EventRow[]> =>
  (
    await rows<RawEvent>(
      db,
      `SELECT ${COLUMNS} FROM room_events WHERE session_id = ? AND seq > ? ORDER BY seq`,
      [session, seq],
    )
  ).map(readRow);

/** All that happened in a room, in order. */
export const eventsOf = async (db: Db, session: string): Promise<StoredEvent[]> =>
  (await eventRowsAfter(db, session, 0)).map((row) => row.event);

/** When something happened last in a class that is on; long ago where there is none. Instant, ms. */
export const lastInClass = async (db: Db): Promise<number> =>
  Number(
    (
      await one<{ at: number | null }>(
        db,
        "SELECT MAX(e.at) AS at FROM sessions s JOIN room_events e ON e.session_id = s.id WHERE s.state = 'live'",
      )
    )?.at ?? 0,
  );

/** Under which ownership a room is written. */
export interface Lease {
  session: string;
  owner: string;
  epoch: number;
}

/** The room has another owner by now: nothing was written. */
export class LeaseLost extends Error {}

const valuesOf = (session: string, { event, command }: EventRow) => {
  const { seq, at, ...body } = event;
  return [session, seq, at, command, versionOf(event.type), JSON.stringify(body)];
};

/** Appends events that were made elsewhere than in a room: the demo's. */
export const layEvents = (db: Db, session: string, events: readonly StoredEvent[]) =>
  run(db, 'INSERT INTO room_events (session_id, seq, at, command_id, version, body) VALUES ?', [
    events.map((event) => valuesOf(session, { event, command: null })),
  ]);

/**
 * Appends in one statement, under the owner's epoch only: all of these events, or none where the room has another owner
 * by now. The lease's row stays as it is until they are in.
 */
async function append(db: Db, lease: Lease, added: readonly EventRow[]) {
  const list = added.map(() => 'SELECT ? AS a, ? AS b, ? AS c, ? AS d, ? AS e, ? AS f').join(' UNION ALL ');
  const { affectedRows } = await run(
    db,
    `INSERT INTO room_events (session_id, seq, at, command_id, version, body)
     SELECT v.* FROM (${list}) v JOIN room_leases l ON l.session_id = ? AND l.owner = ? AND l.epoch = ?`,
    [...added.flatMap((row) => valuesOf(lease.session, row)), lease.session, lease.owner, lease.epoch],
  );
  if (affectedRows !== added.length) throw new LeaseLost();
}

/** Appends, and what must follow with it, in one transaction. */
export async function storeEvents(
  pool: Pool,
  lease: Lease,
  added: readonly EventRow[],
  consequences: readonly Consequence[],
  now: number,
) {
  if (consequences.length === 0) return append(pool, lease, added);
  await transaction(pool, async (db) => {
    await append(db, lease, added);
    for (const consequence of consequences) await follow(db, lease.session, consequence, now);
  });
}

async function follow(db: PoolConnection, session: string, consequence: Consequence, now: number) {
  switch (consequence.do) {
    case 'beginSession':
      return beginSession(db, session);
    case 'endSession':
      await closeBooks(db, session, await eventsOf(db, session));
      return endSession(db, session, newId());
    case 'openParts':
      for (const place of consequence.places) await openPart(db, session, { place, at: consequence.at });
      return;
    case 'closeParts':
      return closeParts(db, session, consequence.at);
    case 'prepareRecording':
      return queuePreparing(db, session, now);
    case 'keepSegments':
      return keepSegments(db, session, consequence.held, now);
    case 'rename':
      return callHere(db, consequence);
    case 'alwaysIn':
      return letInAlways(db, consequence.members, true);
  }
}

/** How long ago a server said that it lives, ms; null where it never did, or the database has forgotten. */
interface Holder extends Lease {
  address: string | null;
  silentMs: number | null;
}

export const holderOf = (db: Db, session: string) =>
  one<Holder>(
    db,
    `SELECT l.session_id AS session, l.owner, l.epoch, s.address,
            TIMESTAMPDIFF(MICROSECOND, s.alive_at, NOW(3)) / 1000 AS silentMs
       FROM room_leases l LEFT JOIN servers s ON s.id = l.owner WHERE l.session_id = ?`,
    [session],
  );

/** Takes a room that has never had an owner; gives whether that was done. */
export const takeFirst = async (db: Db, session: string, owner: string): Promise<boolean> =>
  (
    await run(db, 'INSERT IGNORE INTO room_leases (session_id, owner, epoch) VALUES (?, ?, 1)', [
      session,
      owner,
    ])
  ).affectedRows > 0;

/** Takes a room from its owner, unless somebody was faster. */
export const takeOver = async (db: Db, from: Lease, owner: string): Promise<boolean> =>
  (
    await run(
      db,
      'UPDATE room_leases SET owner = ?, epoch = epoch + 1 WHERE session_id = ? AND owner = ? AND epoch = ?',
      [owner, from.session, from.owner, from.epoch],
    )
  ).affectedRows > 0;

/** Says that a server lives. */
export const heartbeat = (db: Db, id: string, address: string) =>
  run(
    db,
    `INSERT INTO servers (id, address, alive_at) VALUES (?, ?, NOW(3))
       ON DUPLICATE KEY UPDATE address = VALUES(address), alive_at = VALUES(alive_at)`,
    [id, address],
  );

export const farewell = (db: Db, id: string) => run(db, 'DELETE FROM servers WHERE id = ?', [id]);

/** For how long the database has been up, ms: before that, nobody's silence means anything. */
export async function databaseUpMs(db: Db): Promise<number> {
  const row = await one<{ Value: string }>(db, "SHOW GLOBAL STATUS LIKE 'Uptime'");
  return Number(row?.Value ?? 0) * 1000;
}

/** The sessions whose class is on, and who holds each. */
export const liveRooms = (db: Db) =>
  rows<{ session: string; owner: string | null }>(
    db,
    `SELECT s.id AS session, l.owner FROM sessions s LEFT JOIN room_leases l ON l.session_id = s.id WHERE s.state = 'live'`,
  );

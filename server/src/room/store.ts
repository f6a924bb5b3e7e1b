import { RoomEvent, type StoredEvent } from '@nimble-bell/core/api';
import type { Pool } from 'mysql2/promise';
import { newId } from '../context';
import { setSessionState } from '../courses/store';
import { json, one, rows, run, transaction, type Db } from '../db/pool';

/** All that happened in a room, in order. A column that does not hold an event is a fault of ours and is said. */
export async function eventsOf(db: Db, session: string): Promise<StoredEvent[]> {
  const found = await rows<{ seq: number; at: number; body: unknown }>(
    db,
    'SELECT seq, at, body FROM room_events WHERE session_id = ? ORDER BY seq',
    [session],
  );
  return found.map(({ seq, at, body }) => ({ ...RoomEvent.parse(json(body)), seq, at: Number(at) }));
}

/** When classes began and ended, and one member came and went, by session. */
export async function eventsOfAll(
  db: Db,
  sessions: readonly string[],
  member: string,
): Promise<Map<string, StoredEvent[]>> {
  const found = await rows<{ session: string; seq: number; at: number; body: unknown }>(
    db,
    `SELECT session_id AS session, seq, at, body FROM room_events
      WHERE session_id IN (?) AND (JSON_VALUE(body, '$.type') IN ('rangIn', 'dismissed')
        OR (JSON_VALUE(body, '$.type') IN ('entered', 'left') AND JSON_VALUE(body, '$.member') = ?)) ORDER BY session_id, seq`,
    [sessions, member],
  );
  const by = new Map<string, StoredEvent[]>();
  for (const { session, seq, at, body } of found)
    by.set(session, [...(by.get(session) ?? []), { ...RoomEvent.parse(json(body)), seq, at: Number(at) }]);
  return by;
}

/** Appends in one statement: all of a command's events, or none. */
export const appendEvents = (
  db: Db,
  session: string,
  events: readonly StoredEvent[],
  commandId: string | null,
) =>
  run(db, 'INSERT INTO room_events (session_id, seq, at, command_id, body) VALUES ?', [
    events.map(({ seq, at, ...body }, i) => [
      session,
      seq,
      at,
      i === events.length - 1 ? commandId : null,
      JSON.stringify(body),
    ]),
  ]);

/** Appends, and where the class begins or ends, the session's state with it. */
export async function storeEvents(
  pool: Pool,
  session: string,
  events: readonly StoredEvent[],
  commandId: string | null,
) {
  const state = events.some((e) => e.type === 'dismissed')
    ? 'held'
    : events.some((e) => e.type === 'rangIn')
      ? 'live'
      : null;
  if (!state) return void (await appendEvents(pool, session, events, commandId));
  await transaction(pool, async (db) => {
    await appendEvents(db, session, events, commandId);
    await setSessionState(db, session, state);
    if (state === 'held') await standAgain(db, session);
  });
}

/** A room without dates that was dismissed is kept with the time it took, and stands ready again under the next take. */
async function standAgain(db: Db, session: string) {
  const row = await one<{ kind: string; from: number; until: number }>(
    db,
    `SELECT r.kind, (SELECT MIN(at) FROM room_events WHERE session_id = s.id) AS \`from\`,
            (SELECT MAX(at) FROM room_events WHERE session_id = s.id) AS until
       FROM sessions s JOIN series r ON r.id = s.series_id WHERE s.id = ?`,
    [session],
  );
  if (row?.kind !== 'open' && row?.kind !== 'capture') return;
  await run(
    db,
    `INSERT INTO sessions (id, series_id, course_id, local_date, take, number, starts_at, ends_at, linger_minutes)
     SELECT ?, series_id, course_id, local_date, take + 1, number + 1, starts_at, ends_at, linger_minutes
       FROM sessions WHERE id = ?`,
    [newId(), session],
  );
  await run(db, 'UPDATE sessions SET starts_at = ?, ends_at = ? WHERE id = ?', [
    row.from,
    row.until,
    session,
  ]);
}

/** The place of a command that was decided already, for one that is sent again after a lost answer. */
export const seqOfCommand = (db: Db, session: string, commandId: string) =>
  one<{ seq: number }>(db, 'SELECT seq FROM room_events WHERE session_id = ? AND command_id = ?', [
    session,
    commandId,
  ]);

/** Takes or renews the lease of a room for this server; gives when its holder was last alive. */
export async function renewLease(db: Db, session: string, owner: string, now: number) {
  await run(
    db,
    `INSERT INTO room_leases (session_id, owner, alive_at) VALUES (?, ?, ?)
       ON DUPLICATE KEY UPDATE owner = VALUES(owner), alive_at = VALUES(alive_at)`,
    [session, owner, now],
  );
}

export const leaseOf = (db: Db, session: string) =>
  one<{ owner: string; aliveAt: number }>(
    db,
    'SELECT owner, alive_at AS aliveAt FROM room_leases WHERE session_id = ?',
    [session],
  );

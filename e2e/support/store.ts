import mysql from 'mysql2/promise';
import { evolve, newRoom, readEvent, type StoredEvent } from '@nimble-bell/core/room';
import { PORT } from './product';

/** Asks the product's own database, as nobody but a test does. */
export async function askStore<T>(sql: string, values: unknown[] = []): Promise<T[]> {
  const connection = await mysql.createConnection(`mysql://root@127.0.0.1:${PORT + 1}/nimble_bell`);
  try {
    const [rows] = await connection.query(sql, values);
    return rows as T[];
  } finally {
    await connection.end();
  }
}

export interface StoredRow {
  event: StoredEvent;
  command: string | null;
}

/** What is stored of a room, in order. */
export async function storedEvents(session: string): Promise<StoredRow[]> {
  const rows = await askStore<{
    seq: number;
    at: number;
    version: number;
    body: unknown;
    command: string | null;
  }>(
    'SELECT seq, at, version, body, command_id AS command FROM room_events WHERE session_id = ? ORDER BY seq',
    [session],
  );
  return rows.map(({ command, body, ...row }) => ({
    command,
    event: readEvent({
      ...row,
      at: Number(row.at),
      body: typeof body === 'string' ? JSON.parse(body) : body,
    }),
  }));
}

export const replayed = (rows: readonly StoredRow[]) => rows.map((r) => r.event).reduce(evolve, newRoom());

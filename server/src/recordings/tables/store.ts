import type { Place } from '@nimble-bell/core/room';
import { one, rows, run, type Db } from '../../db/pool';

/** What was said at a table; its length in ms. */
export interface TableRow {
  place: Place;
  lengthMs: number;
  file: string;
}

/** What was said at the tables of a recording, in place of what was; it takes so much more, bytes. */
export async function layTables(
  db: Db,
  recording: string,
  { tables, bytes, now }: { tables: readonly TableRow[]; bytes: number; now: number },
): Promise<void> {
  await run(db, 'DELETE FROM recording_tables WHERE recording_id = ?', [recording]);
  for (const { place, lengthMs, file } of tables)
    await run(db, 'INSERT INTO recording_tables (recording_id, place, length_ms, file) VALUES (?, ?, ?, ?)', [
      ...[recording, place, lengthMs, file],
    ]);
  await run(db, 'UPDATE recordings SET tables_at = ?, bytes = bytes + ? WHERE id = ?', [
    now,
    bytes,
    recording,
  ]);
}

/** When they were made; null before. */
export const tablesMadeAt = async (db: Db, recording: string): Promise<number | null> =>
  (await one<{ at: number | null }>(db, 'SELECT tables_at AS at FROM recordings WHERE id = ?', [recording]))
    ?.at ?? null;

export const tablesOf = async (db: Db, recording: string): Promise<TableRow[]> =>
  (
    await rows<TableRow>(
      db,
      'SELECT place, length_ms AS lengthMs, file FROM recording_tables WHERE recording_id = ?',
      [recording],
    )
  ).map((t) => ({ ...t, lengthMs: Number(t.lengthMs) }));

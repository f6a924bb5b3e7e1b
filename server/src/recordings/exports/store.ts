import type { ExportInfo, TakenAlong } from '@nimble-bell/core/api';
import { keepsStudents, keepsTables } from '@nimble-bell/core/recording';
import { one, rows, run, type Db } from '../../db/pool';
import type { RecordingRow } from '../store';

export interface ExportRow {
  id: string;
  recording: string;
  member: string;
  kind: TakenAlong;
  state: ExportInfo['state'] | 'cancelled';
  progress: number;
  file: string | null;
  bytes: number;
  sha256: string | null;
  madeAt: number | null;
  /** What the recording was without when it was made. */
  without: string | null;
}

/** What a recording is without, what it has besides, and how it is cut, as it is kept with what is made of it. */
export const withoutOf = ({ plan, cut }: Pick<RecordingRow, 'plan' | 'cut'>): string =>
  [
    ...[...(plan?.leavesOut ?? [])].sort(),
    ...(keepsStudents(plan) ? ['faces'] : []),
    ...(keepsTables(plan) ? ['tables'] : []),
    ...(cut ? [`cut-${cut.number}`] : []),
  ].join(' ');

const EXPORT = `SELECT id, recording_id AS recording, member_id AS member, kind, state, progress, file, bytes, sha256, made_at AS madeAt, without
                  FROM recording_exports`;
const read = (row: ExportRow): ExportRow => ({
  ...row,
  bytes: Number(row.bytes),
  madeAt: row.madeAt === null ? null : Number(row.madeAt),
});

/** What a member takes along of a recording, the newest first. */
export const exportsOf = async (db: Db, recording: string, member: string): Promise<ExportRow[]> =>
  (
    await rows<ExportRow>(
      db,
      `${EXPORT} WHERE recording_id = ? AND member_id = ? AND state <> 'cancelled' ORDER BY asked_at DESC, id`,
      [recording, member],
    )
  ).map(read);

export async function exportById(db: Db, id: string): Promise<ExportRow | null> {
  const row = await one<ExportRow>(db, `${EXPORT} WHERE id = ?`, [id]);
  return row && read(row);
}

/** Asked for, and the work of it with it. */
export async function askExport(
  db: Db,
  { id, recording, member, kind }: Pick<ExportRow, 'id' | 'recording' | 'member' | 'kind'>,
  now: number,
) {
  await run(
    db,
    'INSERT INTO recording_exports (id, recording_id, member_id, kind, asked_at) VALUES (?, ?, ?, ?, ?)',
    [id, recording, member, kind, now],
  );
  await run(db, "INSERT INTO jobs (kind, job_key, payload, due_at) VALUES ('export', ?, ?, ?)", [
    `export/${id}`,
    JSON.stringify({ export: id }),
    now,
  ]);
}

/** Gives whether it is still wanted. */
export const noteMaking = async (db: Db, id: string, progress: number): Promise<boolean> =>
  (
    await run(
      db,
      "UPDATE recording_exports SET state = 'making', progress = ? WHERE id = ? AND state IN ('waiting', 'making')",
      [progress, id],
    )
  ).affectedRows > 0 || (await exportById(db, id))?.state === 'making';

export const noteMade = async (
  db: Db,
  id: string,
  made: { file: string; bytes: number; sha256: string; without: string; now: number },
) =>
  (
    await run(
      db,
      "UPDATE recording_exports SET state = 'ready', progress = 1, file = ?, bytes = ?, sha256 = ?, without = ?, made_at = ? WHERE id = ? AND state = 'making'",
      [made.file, made.bytes, made.sha256, made.without, made.now, id],
    )
  ).affectedRows > 0;

export const noteUnmade = (db: Db, id: string) =>
  run(db, "UPDATE recording_exports SET state = 'failed' WHERE id = ? AND state IN ('waiting', 'making')", [
    id,
  ]);

export const cancelExport = (db: Db, id: string) =>
  run(db, "UPDATE recording_exports SET state = 'cancelled' WHERE id = ?", [id]);

/** What was made before an instant, or is not wanted any more. */
export const exportsBefore = (db: Db, at: number) =>
  rows<{ id: string }>(
    db,
    "SELECT id FROM recording_exports WHERE made_at < ? OR state IN ('cancelled', 'failed')",
    [at],
  );

export const forgetExport = (db: Db, id: string) =>
  run(db, 'DELETE FROM recording_exports WHERE id = ?', [id]);

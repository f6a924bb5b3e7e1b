import type { MemberScope, RecordingInfo, RecordingPlan, Role, SeriesKind } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import { newId } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';
import { isFor } from '../roster/store';

export interface RecordingRow {
  id: string;
  sessionId: string;
  seriesId: string;
  courseId: string;
  title: string;
  startsAt: number;
  endsAt: number;
  state: RecordingInfo['state'];
  progress: number;
  lengthMs: number;
  bytes: number;
  hasPicture: number;
  file: string | null;
  plan: RecordingPlan | null;
  kind: SeriesKind;
  group: string | null;
  published: boolean;
}

const RECORDING = `SELECT r.id, r.session_id AS sessionId, s.series_id AS seriesId, s.course_id AS courseId, CONCAT(q.title, ' ', s.number) AS title, s.starts_at AS startsAt,
                          s.ends_at AS endsAt, r.state, r.progress, r.length_ms AS lengthMs, r.bytes,
                          r.has_picture AS hasPicture, r.file, c.recording_plan AS plan, q.kind, q.group_name AS \`group\`,
                          IF(q.kind = 'capture', s.posted_at, q.published_at) IS NOT NULL AS published
                     FROM recordings r JOIN sessions s ON s.id = r.session_id
                     JOIN series q ON q.id = s.series_id JOIN courses c ON c.id = s.course_id`;

const read = (row: RecordingRow): RecordingRow => ({
  ...row,
  plan: row.plan ? json(row.plan) : null,
  published: Boolean(row.published),
});

/** What decides which recordings somebody may watch. */
type Watcher = { role: Role; group: string | null; scope?: MemberScope | null };

/** Whether a member may watch: their own sessions, where the plan lets students; a capture once it is posted. */
export const mayWatch = (row: RecordingRow, member: Watcher): boolean =>
  (teaches(member.role) && !member.scope) ||
  (isFor(row, member) && (row.kind === 'capture' || (row.plan?.studentsWatch ?? false)));

export const recordingsWhere = async (db: Db, column: 's.course_id' | 's.id' | 'r.id', value: string) =>
  (await rows<RecordingRow>(db, `${RECORDING} WHERE ${column} = ? ORDER BY s.starts_at DESC`, [value])).map(
    read,
  );

export const recordingOf = (db: Db, session: string) =>
  one<{ id: string }>(db, 'SELECT id FROM recordings WHERE session_id = ?', [session]);

export async function openRecording(db: Db, session: string): Promise<string> {
  const id = newId();
  await run(db, 'INSERT INTO recordings (id, session_id) VALUES (?, ?)', [id, session]);
  return id;
}

export async function openPart(db: Db, recording: string, at: number): Promise<string> {
  const id = newId();
  await run(db, 'INSERT INTO recording_parts (id, recording_id, started_at) VALUES (?, ?, ?)', [
    id,
    recording,
    at,
  ]);
  return id;
}

/** Ends whatever part is open. */
export const closeParts = (db: Db, recording: string, at: number) =>
  run(
    db,
    'UPDATE recording_parts SET ended_at = GREATEST(?, started_at) WHERE recording_id = ? AND ended_at IS NULL',
    [at, recording],
  );

export const addTrack = (db: Db, part: string, member: string, base: string) =>
  run(db, 'INSERT INTO recording_tracks (part_id, member_id, base) VALUES (?, ?, ?)', [part, member, base]);

export const partsOf = (db: Db, recording: string) =>
  rows<{ id: string; from: number; until: number | null }>(
    db,
    'SELECT id, started_at AS `from`, ended_at AS until FROM recording_parts WHERE recording_id = ? ORDER BY started_at',
    [recording],
  );

export const tracksOf = (db: Db, part: string) =>
  rows<{ base: string; member: string; role: Role }>(
    db,
    `SELECT t.base, t.member_id AS member, m.role
       FROM recording_tracks t JOIN members m ON m.id = t.member_id WHERE t.part_id = ?`,
    [part],
  );

/** A recording for a list, as this person may have it. */
export function infoOf(row: RecordingRow, teaches: boolean): RecordingInfo {
  const { id, sessionId, title, startsAt, state, progress, plan } = row;
  return {
    id,
    sessionId,
    title,
    startsAt,
    state,
    progress,
    lengthMs: Number(row.lengthMs),
    bytes: Number(row.bytes),
    keepUntil: plan?.keepUntil ?? null,
    mayDownload: teaches || (plan?.studentsDownload ?? false),
  };
}

/** Of these recordings what a member sees: those who teach the failed and expired ones too. */
export const seenBy = (found: readonly RecordingRow[], member: Watcher): RecordingInfo[] =>
  found
    .filter(
      (r) => mayWatch(r, member) && (teaches(member.role) || (r.state !== 'failed' && r.state !== 'expired')),
    )
    .map((r) => infoOf(r, teaches(member.role)));

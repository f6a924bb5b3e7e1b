import type { Stretch } from '@nimble-bell/core/recording';
import { one, run, type Db } from '../db/pool';

export const anyTerm = (db: Db) => one(db, 'SELECT id FROM terms LIMIT 1');

export const layTeacher = (
  db: Db,
  {
    id,
    name,
    email,
    zone,
    passwordHash,
  }: { id: string; name: string; email: string; zone: string; passwordHash: string },
) =>
  run(db, 'INSERT INTO people (id, name, email, zone, staff, password_hash) VALUES (?, ?, ?, ?, TRUE, ?)', [
    id,
    name,
    email,
    zone,
    passwordHash,
  ]);

export const layNotice = (
  db: Db,
  {
    id,
    course,
    title,
    body,
    from,
    by,
  }: { id: string; course: string; title: string; body: unknown; from: number; by: string },
) =>
  run(
    db,
    `INSERT INTO notices (id, course_id, title, body, visible_from, pinned, made_by, at) VALUES (?, ?, ?, ?, ?, TRUE, ?, ?)`,
    [id, course, title, JSON.stringify(body), from, by, from],
  );

export const lecturesOf = (db: Db, course: string) =>
  one<{ id: string }>(db, "SELECT id FROM series WHERE course_id = ? AND title = 'Lecture'", [course]);

export const layReplies = (db: Db, answers: readonly unknown[]) =>
  run(db, 'INSERT INTO replies (member_id, series_id, local_date, answer, sequence, at) VALUES ?', [answers]);

export const layCancelled = (db: Db, session: string) =>
  run(db, "UPDATE sessions SET state = 'cancelled' WHERE id = ?", [session]);

export const layHeld = (db: Db, session: string) =>
  run(db, "UPDATE sessions SET state = 'held' WHERE id = ?", [session]);

export const layMoved = (db: Db, later: number, session: string) =>
  run(
    db,
    "UPDATE sessions SET state = 'moved', own = 'time', starts_at = starts_at + ?, ends_at = ends_at + ? WHERE id = ?",
    [later, later, session],
  );

export const layRecordingRow = (
  db: Db,
  {
    id,
    session,
    lengthMs,
    bytes,
    file,
    silences,
  }: {
    id: string;
    session: string;
    lengthMs: number;
    bytes: number;
    file: string;
    silences: readonly Stretch[];
  },
) =>
  run(
    db,
    `INSERT INTO recordings (id, session_id, state, progress, length_ms, bytes, file, silences, finished_at)
     VALUES (?, ?, 'ready', 1, ?, ?, ?, ?, 0)`,
    [id, session, lengthMs, bytes, file, JSON.stringify(silences)],
  );

export const layPart = (db: Db, id: string, recording: string, from: number, until: number) =>
  run(db, 'INSERT INTO recording_parts (id, recording_id, started_at, ended_at) VALUES (?, ?, ?, ?)', [
    id,
    recording,
    from,
    until,
  ]);

export const layParts = (
  db: Db,
  parts: readonly { session: string; member: string; ms: number; hands: number }[],
) =>
  run(
    db,
    `INSERT INTO parts_taken (session_id, member_id, spoken_ms, hands) VALUES ?
       ON DUPLICATE KEY UPDATE spoken_ms = VALUES(spoken_ms), hands = VALUES(hands)`,
    [parts.map((p) => [p.session, p.member, p.ms, p.hands])],
  );

export const layThoughts = (db: Db, thoughts: readonly { session: string; stars: number; words: string }[]) =>
  run(db, 'INSERT INTO thoughts (session_id, stars, words) VALUES ?', [
    thoughts.map((t) => [t.session, t.stars, t.words]),
  ]);

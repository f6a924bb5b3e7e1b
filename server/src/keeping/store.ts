import type { Traces } from '@nimble-bell/core/api';
import { one, rows, run, type Db } from '../db/pool';

/** What a course has left behind, and what is still to come of it. */
export const tracesOf = async (db: Db, courseId: string, now: number): Promise<Traces> =>
  (await one<Traces>(
    db,
    `SELECT (SELECT COUNT(*) FROM sessions WHERE course_id = ? AND state IN ('live', 'held')) AS held,
            (SELECT COUNT(DISTINCT member_id) FROM jobs WHERE course_id = ? AND kind = 'mail') AS written,
            (SELECT COUNT(*) FROM sessions s JOIN series r ON r.id = s.series_id
              WHERE s.course_id = ? AND r.kind NOT IN ('open', 'capture') AND s.state IN ('planned', 'moved', 'live')
                AND s.ends_at > ?) AS ahead`,
    [courseId, courseId, courseId, now],
  ))!;

export const putAway = (db: Db, at: number | null, courseId: string) =>
  run(db, 'UPDATE courses SET archived_at = ? WHERE id = ?', [at, courseId]);

export const toTerm = (db: Db, term: string, courseId: string) =>
  run(db, 'UPDATE courses SET term_id = ? WHERE id = ?', [term, courseId]);

/** Everything of a course, in the order in which it hangs together. Nothing of it was ever taught, and nobody was written to. */
export async function deleteCourse(db: Db, courseId: string) {
  const sessions = (
    await rows<{ id: string }>(db, 'SELECT id FROM sessions WHERE course_id = ?', [courseId])
  ).map((s) => s.id);
  const members = (
    await rows<{ id: string }>(db, 'SELECT id FROM enrolments WHERE course_id = ?', [courseId])
  ).map((m) => m.id);
  if (sessions.length)
    for (const table of [
      ...['room_events', 'room_documents', 'room_document_hands', 'room_document_moved'],
      ...['room_document_moments', 'room_leases'],
      ...['roll_lines', 'roll_corrections'],
    ])
      await run(db, `DELETE FROM ${table} WHERE session_id IN (?)`, [sessions]);
  if (members.length)
    for (const table of ['replies', 'calendar_copies', 'exceptions', 'written', 'attached'])
      await run(db, `DELETE FROM ${table} WHERE member_id IN (?)`, [members]);
  for (const table of [
    ...[
      'sessions',
      'series',
      'plan_changes',
      'list_changes',
      'rule_changes',
      'notices',
      'materials',
      'jobs',
      'feeds',
    ],
    'enrolments',
  ])
    await run(db, `DELETE FROM ${table} WHERE course_id = ?`, [courseId]);
  await run(db, 'DELETE FROM courses WHERE id = ?', [courseId]);
}

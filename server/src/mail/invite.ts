import { run, type Db } from '../db/pool';

/** Queues one invitation for each student of a course who has none yet; its key makes asking twice harmless. Gives how many. */
export async function queueInvitations(db: Db, course: string, now: number): Promise<number> {
  const result = await run(
    db,
    `INSERT IGNORE INTO jobs (kind, job_key, course_id, member_id, payload, due_at)
     SELECT 'mail', CONCAT('invite/', id), course_id, id, ?, ? FROM members WHERE course_id = ? AND role = 'student'`,
    [JSON.stringify({ letter: 'invitation' }), now, course],
  );
  return result.affectedRows;
}

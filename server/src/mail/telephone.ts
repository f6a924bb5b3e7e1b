import type { Told } from '@nimble-bell/core/api';
import type { PoolConnection } from 'mysql2/promise';
import { newId } from '../context';
import { rows, run } from '../db/pool';
import { givePins } from '../roster/pins';
import { queueUpdates } from './queue';

/**
 * Gives a course a telephone line, another one, or none, in the caller's transaction. Its people get a PIN each, and
 * those invited are told with the entries of their calendars. Gives who.
 */
export async function setTelephone(
  db: PoolConnection,
  courseId: string,
  number: string | null,
  tellAt: number,
): Promise<Told[]> {
  const { changedRows } = await run(db, 'UPDATE courses SET telephone = ? WHERE id = ?', [number, courseId]);
  await givePins(db, courseId);
  if (!changedRows) return [];
  const told = await rows<Told>(
    db,
    `SELECT m.id AS member, m.name FROM members m JOIN people p ON p.id = m.person_id
      WHERE m.course_id = ? AND m.role <> 'teacher'
        AND EXISTS (SELECT 1 FROM jobs j WHERE j.member_id = m.id AND j.kind = 'mail' AND j.topic IN ('invitation', 'link'))
      ORDER BY m.name`,
    [courseId],
  );
  await queueUpdates(
    db,
    courseId,
    newId(),
    told.map((t) => t.member),
    tellAt,
  );
  return told;
}

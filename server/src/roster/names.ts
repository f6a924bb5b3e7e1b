import { sameName } from '@nimble-bell/core/roster';
import { rows, type Db } from '../db/pool';
import { AppError } from '../errors';

/** Nobody calls themselves by the name of somebody who teaches the course. `self` may keep their own. */
export async function refuseTeachersName(
  db: Db,
  courseId: string,
  name: string,
  self?: string,
): Promise<void> {
  const teaching = await rows<{ id: string; name: string; called: string }>(
    db,
    "SELECT id, name, called FROM members WHERE course_id = ? AND role IN ('teacher', 'assistant')",
    [courseId],
  );
  const taken = teaching.some((t) => t.id !== self && [t.name, t.called].some((n) => sameName(n, name)));
  const message = 'Somebody who teaches here is called that. Choose another name.';
  if (taken) throw new AppError('invalid', message, [{ path: 'name', message }]);
}

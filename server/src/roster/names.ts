import { sameName } from '@nimble-bell/core/roster';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import { teachingNames } from './store';

/** Nobody calls themselves by the name of somebody who teaches the course. `self` may keep their own. */
export async function refuseTeachersName(
  db: Db,
  courseId: string,
  name: string,
  self?: string,
): Promise<void> {
  const teaching = await teachingNames(db, courseId);
  const taken = teaching.some((t) => t.id !== self && [t.name, t.called].some((n) => sameName(n, name)));
  const message = 'Somebody who teaches here is called that. Choose another name.';
  if (taken) throw new AppError('invalid', message, [{ path: 'name', message }]);
}

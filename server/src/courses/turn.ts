import type { PoolConnection } from 'mysql2/promise';
import { AppError } from '../errors';
import { bellsShared, termShared } from '../terms/store';
import { courseById, courseForUpdate, termIdOf, type CourseRow } from './store';

/**
 * The one rule for everything that writes to a course: first its turn, then what is read, then what is written. Bell
 * times, term and course are locked in this order, by everybody, so that nobody waits for one who waits for them. The
 * course is as it is once the turn has come; the turn ends with the transaction.
 */
export async function takeTurn(db: PoolConnection, courseId: string): Promise<CourseRow> {
  await bellsShared(db);
  for (;;) {
    const before = await termIdOf(db, courseId);
    if (!before) throw new AppError('not-found');
    await termShared(db, before.termId);
    // A course may have been moved to another term meanwhile.
    const course = await courseForUpdate(db, courseId);
    if (course?.termId === before.termId) return (await courseById(db, courseId))!;
  }
}

import type { SomeLimits } from '@nimble-bell/core/limits';
import type { DoorRules } from '@nimble-bell/core/door';
import type { RecordingPlan } from '@nimble-bell/core/recording';
import { withValues, type Settings } from '@nimble-bell/core/settings';
import { one, run, type Db } from '../db/pool';
import { readSettings } from '../sessions/store';

/** What a course may say of itself, in part or whole. */
export interface CourseRules {
  limits?: SomeLimits;
  door?: Partial<DoorRules>;
  recording?: Partial<RecordingPlan>;
}

/**
 * Changes what a course says of limits, door and recording, each value with who set it and when; what is said again keeps
 * who said it first. In a transaction of the caller's, the course's row is taken first.
 */
export async function setCourseRules(
  db: Db,
  courseId: string,
  { limits = {}, door = {}, recording = {} }: CourseRules,
  by: string | null,
  at: number,
): Promise<Settings> {
  const row = await one<{ settings: unknown }>(db, 'SELECT settings FROM courses WHERE id = ? FOR UPDATE', [
    courseId,
  ]);
  let settings = readSettings(row?.settings ?? {});
  settings = withValues(settings, 'limits', limits, by, at);
  settings = withValues(settings, 'door', door, by, at);
  settings = withValues(settings, 'recording', recording, by, at);
  await run(db, 'UPDATE courses SET settings = ? WHERE id = ?', [JSON.stringify(settings), courseId]);
  return settings;
}

import type { SomeLimits } from '@nimble-bell/core/limits';
import type { DoorInput } from '@nimble-bell/core/door';
import type { RecordingPlan } from '@nimble-bell/core/recording';
import { withValues, type Settings } from '@nimble-bell/core/settings';
import type { Db } from '../db/pool';
import { readSettings } from '../sessions/store';
import { settingsForUpdate, writeSettings } from './store';

/** What a course may say of itself, in part or whole. */
export interface CourseRules {
  limits?: SomeLimits;
  door?: DoorInput;
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
  const row = await settingsForUpdate(db, courseId);
  let settings = readSettings(row?.settings ?? {});
  settings = withValues(settings, 'limits', limits, by, at);
  settings = withValues(settings, 'door', door, by, at);
  settings = withValues(settings, 'recording', recording, by, at);
  await writeSettings(db, settings, courseId);
  return settings;
}

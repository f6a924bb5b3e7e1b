import type { CourseRow, SessionRow } from '../../courses/store';
import type { RecordingRow } from '../store';
import { forecastOf } from './short';

const course = (automatic: boolean) => ({ recordingPlan: { automatic } }) as unknown as CourseRow;
const session = (startsAt: number, more: Partial<SessionRow> = {}) =>
  ({ startsAt, minutes: 60, state: 'planned', record: null, ...more }) as SessionRow;
/** A minute took a megabyte. */
const known = [{ lengthMs: 600_000, bytes: 10e6 }] as unknown as RecordingRow[];

test('the day on which the space ends is that of the first session that does not fit', () => {
  const sessions = [session(50), session(100), session(200), session(300, { state: 'cancelled' })];
  const ends = (free: number, automatic = true) =>
    forecastOf({ sessions, course: course(automatic), known }, free, 60).endsAt;
  // What is over, or cancelled, takes nothing more.
  expect(ends(120e6)).toBeNull();
  expect(ends(119e6)).toBe(200);
  expect(ends(0)).toBe(100);
  expect(ends(0, false)).toBeNull();
  const one = [session(100, { record: true }), session(200, { record: false })];
  expect(forecastOf({ sessions: one, course: course(false), known }, 0, 60).points).toHaveLength(1);
});

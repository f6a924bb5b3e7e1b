import type { CourseDetail } from '@nimble-bell/core/api';
import { stagesOf } from './stages';

const now = Date.UTC(2026, 9, 6, 21, 0);
const session = (state: string, startsIn: number) => ({
  state,
  startsAt: now + startsIn * 60_000,
  endsAt: now + (startsIn + 80) * 60_000,
});
const course = (more: object) =>
  ({
    series: [],
    sessions: [],
    counts: { students: 0, invited: 0, recordings: 0 },
    limitsSet: null,
    recordingPlan: null,
    findings: [],
    ...more,
  }) as unknown as Omit<CourseDetail, 'stages'>;

test('the path says what is done, what needs the teacher and what cannot be done yet', () => {
  expect(stagesOf(course({}), now)).toEqual({
    plan: 'needs you',
    class: 'needs you',
    invite: 'not yet',
    limits: 'needs you',
    recording: 'needs you',
    teach: 'not yet',
    review: 'not yet',
  });
  const under = course({
    sessions: [session('held', -3000), session('planned', 30)],
    counts: { students: 30, invited: 29, recordings: 1 },
    limitsSet: { by: 'Maren', at: 1 },
  });
  expect(stagesOf(under, now)).toMatchObject({
    plan: 'done',
    class: 'done',
    invite: 'needs you',
    limits: 'done',
    teach: 'needs you',
    review: 'done',
  });
  expect(stagesOf(course({ sessions: [session('planned', 600)] }), now).teach).toBe('not yet');
  const stopped = { sessions: [session('planned', 600)], findings: [{ stage: 'plan', level: 'stops' }] };
  expect(stagesOf(course(stopped), now).plan).toBe('needs you');
  expect(stagesOf(course({ sessions: [session('held', -600)] }), now).teach).toBe('done');
});

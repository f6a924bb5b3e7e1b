import { noSettings, withValues, type Layer } from '../settings/index';
import { isExpired, mayWatch, planOf, recordsItself, type Viewer, type Watchable } from './plan';
import type { RecordingPlan } from './schema';
import { recordingWords } from './words';

const recorded = { automatic: true, keepUntil: '2027-01-01', studentsWatch: true, studentsDownload: false };
const ENDED = Date.UTC(2026, 9, 6, 22, 50);
const layer = (name: 'course' | 'session', recording: Partial<RecordingPlan>): Layer => ({
  name,
  settings: withValues(noSettings(), 'recording', recording, 'maren', 1),
});

test('a session records itself as it says, or as its course plans; a capture always, an open room never', () => {
  const planned = [layer('course', recorded)];
  expect(recordsItself('class', planned)).toBe(true);
  expect(recordsItself('class', [...planned, layer('session', { automatic: false })])).toBe(false);
  expect(recordsItself('class', [])).toBe(false);
  expect(recordsItself('capture', [])).toBe(true);
  expect(recordsItself('open', planned)).toBe(false);
});

test('a plan is in force once it says until when recordings are kept', () => {
  expect(planOf([layer('course', recorded)])).toEqual(recorded);
  expect(planOf([layer('course', { automatic: true })])).toBeNull();
});

test('a recording is gone when its last day is over at home, not before', () => {
  const at = (iso: string) =>
    isExpired({ ...recorded, keepUntil: '2026-10-06' }, 'America/Halifax', Date.parse(iso));
  expect(at('2026-10-07T02:59:00Z')).toBe(false);
  expect(at('2026-10-07T03:00:00Z')).toBe(true);
  expect(isExpired(null, 'America/Halifax', Date.now())).toBe(false);
});

test('a student watches their own sessions where the plan lets them, and a capture once it is posted', () => {
  const row = (more: Partial<Watchable>) =>
    ({ kind: 'class', group: null, published: true, plan: recorded, endsAt: ENDED, ...more }) as Watchable;
  const ana = { id: 'ana', role: 'student' as const, group: 'A' };
  const may = (of: Watchable, who: Viewer = ana, at = ENDED + 1) => mayWatch(of, who, at);
  expect(may(row({}))).toBe(true);
  expect(may(row({ group: 'B' }))).toBe(false);
  expect(may(row({ published: false }))).toBe(false);
  expect(may(row({ plan: null }))).toBe(false);
  expect(may(row({ kind: 'capture', plan: null }))).toBe(true);
  expect(may(row({ kind: 'capture', published: false }))).toBe(false);
  expect(may(row({ published: false, plan: null }), { id: 'teo', role: 'assistant', group: null })).toBe(
    true,
  );
});

test('when, and by whom alone, it is watched; those who teach, always', () => {
  const of = (more: Partial<RecordingPlan>): Watchable => ({
    ...{ kind: 'class', group: null, published: true, seriesId: 's', endsAt: ENDED },
    plan: { ...recorded, ...more },
  });
  const ana = { id: 'ana', role: 'student' as const, group: 'A' };
  const teo = { id: 'teo', role: 'assistant' as const, group: null };
  const on = (plan: Partial<RecordingPlan>, days: number, who: Viewer = ana) =>
    mayWatch(of(plan), who, ENDED + days * 86_400_000);
  const later = { watchAfterDays: 3, watchForDays: 7 };
  expect([2.9, 3, 9.9, 10].map((d) => on(later, d))).toEqual([false, true, true, false]);
  expect([0, 6.9, 7].map((d) => on({ watchForDays: 7 }, d))).toEqual([true, true, false]);
  expect(on(later, 0, teo)).toBe(true);
  expect(on({ onlyFor: { groups: ['B'], members: [] } }, 1)).toBe(false);
  expect(on({ onlyFor: { groups: ['B'], members: ['ana'] } }, 1)).toBe(true);
  expect(on({ onlyFor: { groups: ['A'], members: [] } }, 1)).toBe(true);
  expect(on({ onlyFor: { groups: [], members: ['ben'] } }, 1, { ...ana, group: null })).toBe(false);
  // Said at a narrower place it counts there; what is nothing is not in the plan.
  const plan = planOf([
    layer('course', { ...recorded, watchForDays: 7 }),
    layer('session', { watchForDays: 0 }),
  ]);
  expect(plan).toEqual(recorded);
});

test.each<[Partial<RecordingPlan> | null, string]>([
  [null, 'Sessions are not recorded by themselves.'],
  [{}, 'Sessions are recorded. You can watch your own again until Mon 1 Mar 2027.'],
  [
    { studentsDownload: true },
    'Sessions are recorded. You can watch your own again, and download them, until Mon 1 Mar 2027.',
  ],
  [
    { studentsWatch: false },
    'Sessions are recorded, for those who teach alone, and kept until Mon 1 Mar 2027.',
  ],
  [
    { watchAfterDays: 1, watchForDays: 14 },
    'Sessions are recorded. You can watch your own again from 1 day after class, for 14 days.',
  ],
  [
    { automatic: false },
    'A session is recorded only when a teacher says so. You can watch your own again until Mon 1 Mar 2027.',
  ],
])('whether sessions are recorded is said to students: %j', (more, words) => {
  const plan = { automatic: true, keepUntil: '2027-03-01', studentsWatch: true, studentsDownload: false };
  expect(recordingWords(more && { ...plan, ...more })).toBe(words);
});

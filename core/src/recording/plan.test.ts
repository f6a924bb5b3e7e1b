import { noSettings, withValues, type Layer } from '../settings/index';
import { isExpired, mayWatch, planOf, recordsItself, type RecordingPlan, type Watchable } from './plan';
import { recordingWords } from './words';

const recorded = { automatic: true, keepUntil: '2027-01-01', studentsWatch: true, studentsDownload: false };
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
    ({ kind: 'class', group: null, published: true, plan: recorded, ...more }) as Watchable;
  const ana = { role: 'student' as const, group: 'A' };
  expect(mayWatch(row({}), ana)).toBe(true);
  expect(mayWatch(row({ group: 'B' }), ana)).toBe(false);
  expect(mayWatch(row({ published: false }), ana)).toBe(false);
  expect(mayWatch(row({ plan: null }), ana)).toBe(false);
  expect(mayWatch(row({ kind: 'capture', plan: null }), ana)).toBe(true);
  expect(mayWatch(row({ kind: 'capture', published: false }), ana)).toBe(false);
  expect(mayWatch(row({ published: false, plan: null }), { role: 'assistant', group: null })).toBe(true);
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
    { automatic: false },
    'A session is recorded only when a teacher says so. You can watch your own again until Mon 1 Mar 2027.',
  ],
])('whether sessions are recorded is said to students: %j', (more, words) => {
  const plan = { automatic: true, keepUntil: '2027-03-01', studentsWatch: true, studentsDownload: false };
  expect(recordingWords(more && { ...plan, ...more })).toBe(words);
});

import type { RecordingRow } from '../store';
import { withoutOf } from '../exports/store';
import { leavingSoon } from './soon';

const NOW = Date.UTC(2026, 9, 6, 21);
const row = (id: string, keepUntil: string | null, more: object = {}) =>
  ({
    ...{ id, state: 'ready', takenAt: null },
    plan: keepUntil && { automatic: true, keepUntil, studentsWatch: true, studentsDownload: false },
    ...more,
  }) as RecordingRow;

test('recordings that go within fourteen days are named by their day, the nearest first', () => {
  const all = [
    row('a', '2026-10-20'),
    row('b', '2026-10-08'),
    row('c', '2026-10-21'),
    row('d', '2026-10-08'),
    row('e', null),
  ];
  const soon = leavingSoon(all, NOW).map(({ day, recordings }) => [day, recordings.map((r) => r.id)]);
  expect(soon).toEqual([
    ['2026-10-08', ['b', 'd']],
    ['2026-10-20', ['a']],
  ]);
});

test('what is taken away, failed or gone already is nobody’s to keep longer', () => {
  const gone = [
    row('a', '2026-10-08', { takenAt: 1 }),
    row('b', '2026-10-08', { state: 'failed' }),
    row('c', '2026-10-01'),
  ];
  expect(leavingSoon(gone, NOW)).toEqual([]);
});

test('what a recording is without is the same whatever order it was said in', () => {
  const without = (...leavesOut: string[]) =>
    withoutOf({ plan: { leavesOut }, cut: null } as unknown as Pick<RecordingRow, 'plan' | 'cut'>);
  expect(without('names', 'board')).toBe(without('board', 'names'));
  expect(without('names')).not.toBe(without());
  expect(withoutOf({ plan: null, cut: null })).toBe('');
});

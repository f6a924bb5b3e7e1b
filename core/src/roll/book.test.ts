import fc from 'fast-check';
import { MARKS, markOf, shareOf, slippingWords, sumsOf, type BookCell, type Mark } from './index';

const cell = (mark: Mark, minutes = mark === 'absent' || mark === 'excused' ? 0 : 80): BookCell => ({
  mark,
  minutes,
});
const sessions = (n: number) => Array.from({ length: n }, () => ({ minutes: 80 }));
const slips = (...marks: (Mark | [Mark, number] | null)[]) =>
  slippingWords(
    marks.map((m) => (m === null ? null : typeof m === 'string' ? cell(m) : cell(...m))),
    sessions(marks.length),
  );

test('a teacher’s word stands above the rules, and too short is not there', () => {
  const line = { state: 'present', late: true, leftEarly: true, short: false } as const;
  expect(markOf(line)).toBe('late');
  expect(markOf({ ...line, late: false })).toBe('early');
  expect(markOf({ ...line, short: true })).toBe('absent');
  expect(markOf({ ...line, corrected: { mark: 'excused' } })).toBe('excused');
});

test('who is slipping: two of the last three, or far shorter than before; excused counts for nothing', () => {
  expect(slips('present', 'present', 'absent', 'present', 'absent')).toBe('Missed two of the last three');
  expect(slips('absent', 'absent', 'absent')).toBe('Missed the last three');
  expect(slips('absent', 'absent')).toBeNull();
  expect(slips('present', 'excused', 'absent', null, 'excused', 'present')).toBeNull();
  expect(slips('present', 'absent', 'excused', 'absent')).toBe('Missed two of the last three');
  expect(slips('present', 'present', ['late', 30], ['early', 34])).toBe(
    'There for 40 % of the last two classes, 100 % before',
  );
  expect(slips('present', ['late', 30], ['early', 34])).toBeNull();
  expect(slips('present', 'present', ['late', 60], ['early', 60])).toBeNull();
});

test('sums are of what counts, whatever the order', () => {
  const some = fc.array(
    fc.option(fc.record({ mark: fc.constantFrom(...MARKS), minutes: fc.integer({ min: 0, max: 90 }) })),
  );
  fc.assert(
    fc.property(some, (cells) => {
      const sums = sumsOf(cells);
      const counted = cells.filter((c) => c && c.mark !== 'excused');
      expect(sums.of).toBe(counted.length);
      expect(sums.there).toBeLessThanOrEqual(sums.of);
      expect(sums.excused + sums.of).toBe(cells.filter(Boolean).length);
      expect(sumsOf([...cells].reverse())).toEqual(sums);
      const share = shareOf(sums);
      expect(share === null).toBe(sums.of === 0);
    }),
  );
});

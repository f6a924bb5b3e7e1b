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

test('who missed one of three, did not watch it, and was silent in the others is slipping; whoever did any of it is not', () => {
  const cells = [cell('present'), cell('absent'), cell('late', 70)];
  const silent = { tookPart: false, recorded: true, watched: false };
  const slip = (...signs: Parameters<typeof slippingWords>[2] & object) =>
    slippingWords(cells, sessions(3), signs);
  expect(slip(silent, silent, silent)).toBe(
    'Missed one of the last three and did not watch it, and was silent in the others',
  );
  expect(slip({ ...silent, tookPart: true }, silent, silent)).toBeNull();
  expect(slip(silent, { ...silent, watched: true }, silent)).toBeNull();
  expect(slip(silent, { ...silent, recorded: false }, silent)).toBeNull();
  // Where it is not counted nothing is known.
  expect(slip(null, null, null)).toBeNull();
  expect(
    slippingWords([cell('present'), cell('present'), cell('present')], sessions(3), [silent, silent, silent]),
  ).toBeNull();
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

import fc from 'fast-check';
import { common, joined, without } from './stretches';

const stretches = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 9 })), { maxLength: 9 })
  .map((all) => all.map(([from, length]) => ({ from, until: from + length })));
const has = (all: readonly { from: number; until: number }[], at: number) =>
  all.some((s) => s.from <= at && at < s.until);

test('stretches are joined, and what they share and do not share is so at every moment', () => {
  fc.assert(
    fc.property(stretches, stretches, (one, other) => {
      const [a, b] = [joined(one), joined(other)];
      for (const [i, s] of a.entries()) expect(s.from).toBeGreaterThan(a[i - 1]?.until ?? -1);
      for (let at = 0; at < 70; at++) {
        expect(has(a, at)).toBe(has(one, at));
        expect(has(common(a, b), at)).toBe(has(a, at) && has(b, at));
        expect(has(without(a, b), at)).toBe(has(a, at) && !has(b, at));
      }
    }),
  );
});

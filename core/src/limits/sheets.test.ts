import fc from 'fast-check';
import { noSettings, takenBack, withValues } from '../settings/index';
import {
  deviations,
  followSheet,
  Permission,
  rowOf,
  SHIPPED_SHEETS,
  CAPABILITY_IDS,
  underSheet,
  withoutSheet,
  type SomeLimits,
} from './index';

test('the college’s sheets say something that makes sense of everything that can be set', () => {
  expect(SHIPPED_SHEETS).toHaveLength(5);
  for (const { limits } of SHIPPED_SHEETS)
    for (const c of CAPABILITY_IDS)
      // What is seen of one another, and signs, a sheet may leave to the course.
      if (limits[c] !== undefined || (rowOf(c).group !== 'seeing' && c !== 'react'))
        expect(rowOf(c).states).toContain(limits[c]);
});

const full = fc.record(
  Object.fromEntries(CAPABILITY_IDS.map((c) => [c, fc.constantFrom(...rowOf(c).states)])),
) as fc.Arbitrary<SomeLimits>;
const some = fc.dictionary(
  fc.constantFrom(...CAPABILITY_IDS),
  fc.constantFrom(...Permission.options),
) as fc.Arbitrary<SomeLimits>;

test('under a sheet all of it holds; what is set otherwise deviates, stays when the sheet is edited, and when it is taken away', () => {
  fc.assert(
    fc.property(full, full, some, (before, after, otherwise) => {
      const under = underSheet(noSettings(), { id: 's', limits: before }, 'maren', 1);
      expect(deviations(under, { limits: before })).toEqual([]);
      const own = withValues(under, 'limits', otherwise, 'teo', 2);
      const differ = CAPABILITY_IDS.filter((c) => otherwise[c] && otherwise[c] !== before[c]);
      expect(deviations(own, { limits: before })).toEqual(differ);
      const followed = followSheet(own, { limits: before }, { limits: after }, 'maren', 3);
      for (const c of CAPABILITY_IDS)
        expect(followed.limits[c]!.value).toBe(differ.includes(c) ? otherwise[c] : after[c]);
      const free = withoutSheet(own, { limits: before });
      expect(free.sheet).toEqual({});
      expect(Object.keys(free.limits).sort()).toEqual([...differ].sort());
    }),
  );
});

test('a change is taken back value by value: what stands as it left it, and nothing that was set since', () => {
  fc.assert(
    fc.property(some, some, some, (first, change, since) => {
      const before = withValues(noSettings(), 'limits', first, 'maren', 1);
      const after = withValues(before, 'limits', change, 'teo', 2);
      const now = withValues(after, 'limits', since, 'ines', 3);
      const { settings, left } = takenBack(now, before, after);
      let stays = 0;
      for (const c of CAPABILITY_IDS) {
        const changed = JSON.stringify(before.limits[c]) !== JSON.stringify(after.limits[c]);
        const stood = JSON.stringify(now.limits[c]) === JSON.stringify(after.limits[c]);
        if (changed && !stood) stays++;
        expect(settings.limits[c]).toEqual(changed && stood ? before.limits[c] : now.limits[c]);
      }
      expect(left).toBe(stays);
      expect(takenBack(after, before, after)).toEqual({ settings: before, left: 0 });
    }),
  );
});

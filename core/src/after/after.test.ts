import fc from 'fast-check';
import { noSettings, withValues } from '../settings/index';
import {
  afterRules,
  COLLEGE_AFTER,
  meanOf,
  NO_PART,
  partsTogether,
  ThoughtInput,
  TOGETHER,
  thoughtsShown,
  weighed,
  type Thought,
} from './index';

test('what somebody took part is weighed as the course says', () => {
  const layers = [
    { name: 'college' as const, settings: noSettings() },
    {
      name: 'course' as const,
      settings: withValues(noSettings(), 'after', { perMinute: 4, perHand: 0 }, null, 0),
    },
  ];
  const rules = afterRules(layers);
  expect(rules).toEqual({ ...COLLEGE_AFTER, perMinute: 4, perHand: 0 });
  const sum = partsTogether([
    { spokenMs: 90_000, written: 2, hands: 3, answers: 4 },
    null,
    { ...NO_PART, written: 1 },
  ]);
  expect(weighed(sum, rules)).toBe(13);
  expect(weighed(NO_PART, rules)).toBe(0);
});

const anyThought: fc.Arbitrary<Thought> = fc.record({
  stars: fc.integer({ min: 1, max: 5 }),
  words: fc.string({ maxLength: 20 }),
});

test('fewer than five are not shown, and from there on five more at once', () => {
  fc.assert(
    fc.property(fc.array(anyThought, { maxLength: 40 }), (all) => {
      const shown = thoughtsShown(all);
      const count = shown.stars.reduce((sum, n) => sum + n, 0);
      expect(shown.said).toBe(all.length);
      expect(count % TOGETHER).toBe(0);
      expect(all.length - count).toBeLessThan(TOGETHER);
      // One more changes nothing, but where it fills five.
      const before = thoughtsShown(all.slice(0, -1));
      if (all.length % TOGETHER) expect(shown.words).toEqual(before.words);
      expect(meanOf(shown) === null).toBe(count === 0);
    }),
  );
  expect(meanOf({ stars: [0, 0, 1, 1, 3] })).toBe(4.4);
});

test('a thought is one to five and a short word', () => {
  expect(ThoughtInput.parse({ stars: 4 })).toEqual({ stars: 4, words: '' });
  for (const odd of [{}, { stars: 0 }, { stars: 6 }, { stars: 2.5 }, { stars: 3, words: 'x'.repeat(281) }])
    expect(ThoughtInput.safeParse(odd).success).toBe(false);
});

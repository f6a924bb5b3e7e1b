import fc from 'fast-check';
import { distance, similarNames } from './similar';

test.each([
  ['Ana', 'Ana Lanyon', true],
  ['Anna Lanion', 'Ana Lanyon', true],
  ['A. Lanyon', 'Ana Lanyon', true],
  ['lanyon, ANA', 'Ana Lanyon', true],
  ['José Núñez', 'Jose Nunez', true],
  ['Ben Garrow', 'Ana Lanyon', false],
  ['A.', 'Ana Lanyon', false],
  ['Ana Garrow', 'Ana Lanyon', false],
  ['Bo Ek', 'Ba Ek', false],
  ['', 'Ana', false],
])('%s and %s: %s', (a, b, alike) => {
  expect([similarNames(a, b), similarNames(b, a)]).toEqual([alike, alike]);
});

test('the distance of words is one of distances', () => {
  const word = fc.string({ maxLength: 8 });
  fc.assert(
    fc.property(word, word, word, (a, b, c) => {
      expect(distance(a, a, 9)).toBe(0);
      expect(distance(a, b, 9)).toBe(distance(b, a, 9));
      expect(distance(a, c, 20)).toBeLessThanOrEqual(distance(a, b, 20) + distance(b, c, 20));
    }),
  );
});

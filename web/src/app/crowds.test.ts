import fc from 'fast-check';
import { crowds, piles, PILE_PX, TARGET_PX } from './crowds';

const x = (n: number) => n;

test('whatever stands along a line is pressed once, on stretches wide enough that do not lie over each other', () => {
  const line = fc.array(fc.double({ min: 0, max: 1200, noNaN: true }), { maxLength: 80 });
  fc.assert(
    fc.property(line, (things) => {
      const found = crowds(things, x);
      expect(found.flatMap((c) => c.those)).toEqual([...things].sort((a, b) => a - b));
      found.forEach((c, i) => {
        expect(c.to - c.from).toBeGreaterThanOrEqual(TARGET_PX - 1e-9);
        for (const thing of c.those) expect(thing >= c.from - 1e-9 && thing <= c.to + 1e-9).toBe(true);
        if (i) expect(c.from).toBeGreaterThanOrEqual(found[i - 1]!.to - 1e-9);
        expect(piles(c.those, x).flat()).toEqual(c.those);
      });
    }),
  );
});

test('two sessions a week stand alone where there is room, and in a week’s crowd on a phone', () => {
  const term = [0, 2, 7, 9, 14, 16];
  expect(
    crowds(
      term.map((d) => d * 12),
      x,
    ),
  ).toHaveLength(6);
  expect(
    crowds(
      term.map((d) => d * 3.5),
      x,
    ),
  ).toHaveLength(3);
});

test('what lies on each other is a pile', () => {
  expect(piles([10, 10, 10, 10 + PILE_PX, 40], x).map((p) => p.length)).toEqual([3, 1, 1]);
});

import fc from 'fast-check';
import { many } from '@nimble-bell/core/testing';
import { NEAREST, pinched, pointUnder, type At } from './pinched';

const SIZE: At = [800, 450];
const share = fc.double({ min: 0, max: 1, noNaN: true });
const place = fc.tuple(share, share).map(([x, y]): At => [x * SIZE[0], y * SIZE[1]]);
const apart = fc.double({ min: 20, max: 900, noNaN: true });

test('two fingers twice as far apart have it twice as large, what was between them still between them', () => {
  const held = { of: [0.5, 0.5] as At, near: 1, apart: 100 };
  expect(pinched(held, SIZE, [400, 225], 200)).toEqual({ near: 2, left: -400, top: -225 });
  // Moved as well: it goes with them.
  expect(pinched(held, SIZE, [300, 200], 200)).toEqual({ near: 2, left: -500, top: -250 });
});

test('it covers its window whatever fingers do; what is held stays under them where that can be', () => {
  const began = fc.record({ near: fc.double({ min: 1, max: NEAREST, noNaN: true }), of: place, apart });
  fc.assert(
    fc.property(began, place, apart, ({ near, of, apart: was }, at, now) => {
      const from = pinched({ of: [0.5, 0.5], near, apart: 1 }, SIZE, of, 1);
      const point = pointUnder(from, SIZE, of);
      const lying = pinched({ of: point, near: from.near, apart: was }, SIZE, at, now);
      expect(lying.near).toBeGreaterThanOrEqual(1);
      expect(lying.near).toBeLessThanOrEqual(NEAREST);
      const sides = [
        [lying.left, 0],
        [lying.top, 1],
      ] as const;
      for (const [offset, i] of sides) {
        expect(offset).toBeLessThanOrEqual(0);
        expect(offset + SIZE[i] * lying.near).toBeGreaterThanOrEqual(SIZE[i] - 1e-6);
        const atAnEdge = offset > -1e-6 || offset + SIZE[i] * lying.near < SIZE[i] + 1e-6;
        if (!atAnEdge) expect(pointUnder(lying, SIZE, at)[i]).toBeCloseTo(point[i], 6);
      }
    }),
    { numRuns: many(500) },
  );
});

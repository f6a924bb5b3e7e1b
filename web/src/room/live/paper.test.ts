import fc from 'fast-check';
import { cutOf } from './paper';

const CAMERA = { width: 1600, height: 900 };
const whole = { turn: 0, closer: 1, x: 0.5, y: 0.5 };

test('paper is shown whole, and on its side where it is turned by a quarter', () => {
  expect(cutOf(CAMERA, whole)).toEqual({ from: { x: 0, y: 0, ...CAMERA }, to: CAMERA });
  expect(cutOf(CAMERA, { ...whole, turn: 1 }).to).toEqual({ width: 900, height: 1600 });
  expect(cutOf(CAMERA, { ...whole, turn: 2 }).to).toEqual(CAMERA);
});

test('nearer it is around the place that is meant, and never past the edge of what the camera sees', () => {
  expect(cutOf(CAMERA, { ...whole, closer: 2 }).from).toEqual({ x: 400, y: 225, width: 800, height: 450 });
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 3 }),
      fc.double({ min: 1, max: 4, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (turn, closer, x, y) => {
        const { from, to } = cutOf(CAMERA, { turn, closer, x, y });
        expect(from.x).toBeGreaterThanOrEqual(0);
        expect(from.y).toBeGreaterThanOrEqual(0);
        expect(from.x + from.width).toBeLessThanOrEqual(CAMERA.width + 1e-6);
        expect(from.y + from.height).toBeLessThanOrEqual(CAMERA.height + 1e-6);
        expect(to.width * to.height).toBeCloseTo(from.width * from.height, 3);
      },
    ),
  );
});

import fc from 'fast-check';
import { cutOf, lightingOf } from './paper';

const CAMERA = { width: 1600, height: 900 };
const whole = { turn: 0, closer: 1, x: 0.5, y: 0.5, brighter: 0, lamp: false };

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
        const { from, to } = cutOf(CAMERA, { ...whole, turn, closer, x, y });
        expect(from.x).toBeGreaterThanOrEqual(0);
        expect(from.y).toBeGreaterThanOrEqual(0);
        expect(from.x + from.width).toBeLessThanOrEqual(CAMERA.width + 1e-6);
        expect(from.y + from.height).toBeLessThanOrEqual(CAMERA.height + 1e-6);
        expect(to.width * to.height).toBeCloseTo(from.width * from.height, 3);
      },
    ),
  );
});

/** A camera that has these, and what is asked of it. */
function camera(has: object) {
  const asked: unknown[] = [];
  const applyConstraints = async ({ advanced }: MediaTrackConstraints = {}) => void asked.push(advanced?.[0]);
  return { asked, lighting: lightingOf({ getCapabilities: () => has, applyConstraints }) };
}

test('a lamp and an exposure are the camera’s where it has them, within what it can', () => {
  const { asked, lighting } = camera({ torch: [false, true], exposureCompensation: { min: -1, max: 1 } });
  expect(lighting.lamp).toBe(true);
  for (const wish of [
    whole,
    { lamp: true, brighter: 1 },
    { lamp: true, brighter: 1 },
    { ...whole, brighter: 4 },
  ])
    expect(lighting.follow(wish)).toBe(1);
  // Asked when it is another, and never before it was wished.
  expect(asked).toEqual([
    { torch: true, exposureCompensation: 0.5 },
    { torch: false, exposureCompensation: 1 },
  ]);
});

test('where the camera cannot, it is drawn brighter or darker, by half stops; and nothing is asked of it', () => {
  const { asked, lighting } = camera({});
  const drawn = [0, 2, -2].map((brighter) => lighting.follow({ lamp: true, brighter }));
  expect([lighting.lamp, drawn, asked]).toEqual([false, [1, 2, 0.5], []]);
  const silent = lightingOf({ applyConstraints: async () => {} } as unknown as MediaStreamTrack);
  expect([silent.lamp, silent.follow({ lamp: false, brighter: 2 })]).toEqual([false, 2]);
});

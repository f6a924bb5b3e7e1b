import { bytesAMinute, spaceAhead, USUAL_KILOBITS } from './index';

test('what is ahead is forecast from what was recorded, and the day on which the space ends is named', () => {
  expect(bytesAMinute([])).toBeNull();
  const rate = bytesAMinute([
    { lengthMs: 60_000, bytes: 4e6 },
    { lengthMs: 180_000, bytes: 4e6 },
  ]);
  expect(rate).toBe(2e6);
  const ahead = [
    { at: 300, minutes: 80 },
    { at: 100, minutes: 80 },
    { at: 200, minutes: 40 },
  ];
  expect(spaceAhead(ahead, rate, 1e9)).toEqual({
    points: [
      { at: 100, bytes: 160e6 },
      { at: 200, bytes: 240e6 },
      { at: 300, bytes: 400e6 },
    ],
    bytes: 400e6,
    endsAt: null,
  });
  expect(spaceAhead(ahead, rate, 200e6).endsAt).toBe(200);
  expect(spaceAhead([{ at: 1, minutes: 1 }], null, 0)).toMatchObject({
    bytes: USUAL_KILOBITS * 7500,
    endsAt: 1,
  });
});

import { pastSilence, savedBy } from './index';

test('a silence is passed over but for its breath; one that is short is not', () => {
  const silences = [
    { from: 1000, until: 2200 },
    { from: 10_000, until: 15_000 },
  ];
  expect([0, 1500, 10_100, 10_400, 14_599, 14_600, 20_000].map((at) => pastSilence(silences, at))).toEqual([
    ...[null, null, null],
    ...[14_600, 14_600, null, null],
  ]);
  expect(savedBy(silences)).toBe(4200);
});

import { bytesAMinute, spaceAhead, toRecord, USUAL_KILOBITS } from './index';

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

test('what is over, cancelled or not to be recorded takes nothing; the space ends with the first session that does not fit', () => {
  const session = (startsAt: number, more: object = {}) => ({
    ...{ startsAt, minutes: 60, state: 'planned', record: null },
    ...more,
  });
  const sessions = [session(50), session(100), session(200), session(300, { state: 'cancelled' })];
  const ends = (free: number, automatic = true) =>
    spaceAhead(toRecord(sessions, automatic, 60), 1e6, free).endsAt;
  expect(ends(120e6)).toBeNull();
  expect(ends(119e6)).toBe(200);
  expect(ends(0)).toBe(100);
  expect(ends(0, false)).toBeNull();
  const said = [session(100, { record: true }), session(200, { record: false })];
  expect(toRecord(said, false, 60).map((a) => a.at)).toEqual([100]);
  expect(toRecord(said, true, 60)).toHaveLength(1);
});

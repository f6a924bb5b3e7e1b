import { SteadyClock } from './clock';

/** A machine whose clock is put on or back, while its even time goes on. */
function machine() {
  let [even, put] = [5000, 1_000_000];
  const clock = new SteadyClock(
    () => put + even,
    () => even,
  );
  return { clock, pass: (ms: number) => (even += ms), set: (by: number) => (put += by) };
}

test('time goes on evenly while something is held, however the machine’s clock is put; then it is put right', () => {
  const { clock, pass, set } = machine();
  const began = clock.now();
  set(3_600_000);
  pass(1000);
  expect([clock.follow(true), clock.now() - began]).toEqual([0, 1000]);
  set(-7_200_000);
  pass(500);
  expect([clock.follow(true), clock.now() - began]).toEqual([0, 1500]);
  expect(clock.follow(false)).toBe(-3_600_000);
  expect(clock.now() - began).toBe(1500 - 3_600_000);
  set(20);
  expect(clock.follow(false)).toBe(0);
});

test('a program that begins where the clock was put back begins no earlier than what has been', () => {
  const { clock, pass } = machine();
  const now = clock.now();
  clock.startAt(now - 10);
  expect(clock.now()).toBe(now);
  clock.startAt(now + 90_000);
  pass(10);
  expect(clock.now()).toBe(now + 90_010);
  // Told to be in another week it is there.
  clock.startAt(now + 7 * 86_400_000);
  expect(clock.now()).toBe(now + 90_010);
});

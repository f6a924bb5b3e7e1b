import type { RoomEvent, StoredEvent } from '../room/index';
import { entry } from '../testing/index';
import { COLLEGE_ROLL, rollOf } from './index';

const START = Date.UTC(2026, 9, 6, 21, 30);
const END = START + 80 * 60_000;
const people = [
  { member: 'ana', name: 'Ana Lanyon', role: 'student' as const },
  { member: 'ben', name: 'Ben Garrow', role: 'student' as const },
];

/** Events at minutes after the planned start. */
const log = (...steps: [number, RoomEvent][]): StoredEvent[] =>
  steps.map(([minute, event], i) => ({ ...event, seq: i + 1, at: START + minute * 60_000 }));
const enter = (member: string): RoomEvent => entry(member, member);
const leave = (member: string): RoomEvent => ({ type: 'left', member });
const ringIn: RoomEvent = { type: 'rangIn', by: 'maren' };
const dismiss: RoomEvent = { type: 'dismissed', by: 'maren' };
const roll = (events: StoredEvent[], now = END + 3_600_000) =>
  rollOf(events, people, { startsAt: START, endsAt: END }, now);

test('present from ring-in, even for those who waited before it; the absent stay on the roll', () => {
  const [ana, ben] = roll(log([-8, enter('ana')], [-2, ringIn], [80, dismiss]));
  expect(ana).toMatchObject({ state: 'present', minutes: 82, late: false, leftEarly: false });
  expect(ana!.from).toBe(START - 2 * 60_000);
  expect(ben).toMatchObject({ state: 'absent', from: null, until: null, minutes: 0 });
});

test('late is counted from the planned start, or from ring-in where that was later', () => {
  const late = (ring: number, come: number) =>
    roll(log([ring, ringIn], [come, enter('ana')], [80, dismiss]))[0]!.late;
  expect(late(0, 5)).toBe(false);
  expect(late(0, 6)).toBe(true);
  expect(late(10, 14)).toBe(false);
});

test('a lost connection of seconds is no departure, a long absence is', () => {
  const [short] = roll(
    log([0, ringIn], [0.1, enter('ana')], [20, leave('ana')], [21, enter('ana')], [80, dismiss]),
  );
  expect(short!.stays).toHaveLength(1);
  const [long] = roll(
    log([0, ringIn], [0, enter('ana')], [20, leave('ana')], [40, enter('ana')], [80, dismiss]),
  );
  expect(long).toMatchObject({ minutes: 60 });
  expect(long!.stays).toHaveLength(2);
});

test('who goes when the class was let go did not leave early; who went before did', () => {
  const letGo: RoomEvent = { type: 'letGo', by: 'maren', on: true };
  const [ana, ben] = roll(
    log(
      [0, ringIn],
      [0, enter('ana')],
      [0, enter('ben')],
      [20, leave('ben')],
      [50, letGo],
      [51, leave('ana')],
      [70, dismiss],
    ),
  );
  expect([ana!.leftEarly, ben!.leftEarly]).toEqual([false, true]);
});

test('who leaves more than ten minutes before the end left early; an early dismissal makes nobody early', () => {
  expect(roll(log([0, ringIn], [0, enter('ana')], [60, leave('ana')], [80, dismiss]))[0]!.leftEarly).toBe(
    true,
  );
  expect(roll(log([0, ringIn], [0, enter('ana')], [50, dismiss]))[0]!.leftEarly).toBe(false);
});

test('a short time without the server is not held against anyone, a long one is taken off', () => {
  const away = (minutes: number) =>
    roll(
      log(
        [0, ringIn],
        [0, enter('ana')],
        [30 + minutes, { type: 'interrupted', from: START + 30 * 60_000 }],
        [80, dismiss],
      ),
    )[0]!;
  expect(away(1).minutes).toBe(80);
  expect(away(20).minutes).toBe(60);
});

test('while class is on, the roll tells who is still there', () => {
  const [ana] = roll(log([0, ringIn], [0, enter('ana')]), START + 30 * 60_000);
  expect(ana).toMatchObject({ state: 'present', until: null, minutes: 30 });
});

test('nobody was present at a class that never began', () => {
  expect(roll(log([-5, enter('ana')]))[0]!.state).toBe('absent');
});

test('by telephone, and too short by a rule of the course, are on the roll', () => {
  const called: RoomEvent = { type: 'calledIn', member: 'ana' };
  const events = log([0, ringIn], [1, enter('ana')], [1, called], [20, leave('ana')], [80, dismiss]);
  const [ana] = rollOf(events, people, { startsAt: START, endsAt: END }, END, {
    ...COLLEGE_ROLL,
    enoughMinutes: 30,
  });
  expect(ana).toMatchObject({ telephone: true, short: true, minutes: 19, leftEarly: true });
});

import fc from 'fast-check';
import { ana, ben, entry, lecture, maren, opening, TestRoom } from '../../testing/index';

/** A class of so many that Maren has rung in. */
function classOf(students: number, asked: Record<string, number> = {}) {
  const room = new TestRoom().happen(
    { ...opening(), asked },
    entry('maren', 'Maren Oduya', 'teacher'),
    ...Array.from({ length: students }, (_, i) => entry(`s${i}`)),
  );
  room.do(maren, { type: 'ringIn' });
  return room;
}
const timesOf = (room: TestRoom) => Object.values(room.state.pick.asked);

test('all are asked about as often, whatever the lots; nobody twice running', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 12 }), fc.nat({ max: 1e9 }), (students, later) => {
      const room = classOf(students);
      room.later = later;
      let before: string | undefined;
      for (let i = 0; i < 6 * students; i++) {
        room.do(maren, { type: 'pick' });
        const { member } = room.state.pick.now!;
        expect(member).not.toBe(before);
        before = member;
      }
      const times = timesOf(room);
      expect(times.reduce((a, b) => a + b, 0)).toBe(6 * students);
      // Four lots to one: nobody gets away far.
      expect(Math.max(...times) - Math.min(...times)).toBeLessThanOrEqual(5);
    }),
    { numRuns: 60 },
  );
});

test('who was asked least in the classes before comes first', () => {
  const room = classOf(3, { s0: 9, s1: 9, s2: 0 });
  const picked = Array.from({ length: 8 }, () => {
    room.do(maren, { type: 'pick' });
    return room.state.pick.now!.member;
  });
  // Every other time: nobody is asked twice running.
  expect(picked.filter((m) => m === 's2').length).toBe(4);
});

test('not the away, not who has left, not those who teach; and where nobody is there that is said', () => {
  const room = lecture();
  room.do(ana, { type: 'giveSign', sign: 'away' });
  for (let i = 0; i < 4; i++) {
    room.do(maren, { type: 'pick' });
    expect(room.state.pick.now?.member).toBe('ben');
  }
  room.happen({ type: 'left', member: 'ben' });
  expect(room.state.pick.now).toBeNull();
  expect(room.refusal(maren, { type: 'pick' })?.code).toBe('nobody-here');
});

test('it is passed on by who is asked, or by a teacher; it does not count, and does not come back', () => {
  const room = lecture();
  room.do(maren, { type: 'pick' });
  const first = room.state.pick.now!.member === 'ana' ? ana : ben;
  const second = first === ana ? ben : ana;
  expect(room.refusal(second, { type: 'passOn' })?.code).toBe('teachers-only');
  room.do(first, { type: 'passOn' });
  expect(room.state.pick.now).toMatchObject({ member: second.member, passed: [first.member] });
  expect(room.state.pick.asked).toEqual({ [first.member]: 0, [second.member]: 1 });
  expect(room.refusal(maren, { type: 'passOn' })?.code).toBe('nobody-else');
  room.do(maren, { type: 'endPick' });
  expect(room.state.pick.now).toBeNull();
  expect(room.do(maren, { type: 'passOn' })).toMatchObject({ events: [] });
});

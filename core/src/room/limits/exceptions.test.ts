import { ana, ben, lecture, maren } from '../../testing/index';
import { audience, dueBy, exceptionEvents, may, snapshotFor, type PersonalLimit } from '../index';

const MINUTE = 60_000;
const closed: PersonalLimit = {
  ...{ member: 'ana', capability: 'speak', state: 'closed' },
  ...{ until: 10 * MINUTE, by: 'maren' },
};
const opens: PersonalLimit = { ...closed, member: 'ben', capability: 'present', state: 'open' };

const withThem = (wanted: PersonalLimit[]) => {
  const room = lecture({ speak: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  return room.happen(...exceptionEvents(room.state, wanted, room.now));
};

test('one person may or may not, whatever the class may; the same twice changes nothing; hush is above', () => {
  const room = withThem([closed, opens]);
  expect(may(room.state, ana, 'speak')).toMatchObject({ allowed: false, because: { layer: 'person' } });
  expect(may(room.state, ben, 'speak').allowed).toBe(true);
  expect(may(room.state, ben, 'present').allowed).toBe(true);
  expect(exceptionEvents(room.state, [closed, opens], room.now)).toEqual([]);
  room.do(maren, { type: 'hush' });
  expect(may(room.state, ben, 'present')).toMatchObject({ allowed: false, because: { layer: 'hush' } });
});

test('a microphone that it closes is off for all, and nobody else learns why; what it opens all may know', () => {
  const room = withThem([closed, opens]);
  expect(room.state.desk.microphone).toEqual({});
  const told = (viewer: typeof ana) =>
    room.events.filter((e) => audience(e, viewer, room.state)).filter((e) => e.type === 'excepted');
  expect(told(ana)).toHaveLength(2);
  expect(told(ben).map((e) => e.member)).toEqual(['ben']);
  expect(told(maren)).toHaveLength(2);
  expect(snapshotFor(room.state, ben).limits.exceptions.ana).toEqual({});
  expect(snapshotFor(room.state, ana).limits.exceptions.ana?.speak?.state).toBe('closed');
});

test('it ends by itself when its time is over, or when it is taken away', () => {
  const room = withThem([closed, opens]);
  expect(dueBy(room.state, 10 * MINUTE - 1)).toEqual([]);
  while (dueBy(room.state, 10 * MINUTE).length) room.happen(...dueBy(room.state, 10 * MINUTE));
  expect(room.state.limits.exceptions).toEqual({});
  expect(may(room.state, ana, 'speak').allowed).toBe(true);
  const other = withThem([closed]);
  other.happen(...exceptionEvents(other.state, [], other.now));
  expect(other.state.limits.exceptions).toEqual({});
  // One whose time is over already is none.
  expect(exceptionEvents(other.state, [closed], 11 * MINUTE)).toEqual([]);
});

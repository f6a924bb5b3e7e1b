import { ana, ben, lecture, maren } from '../../testing/index';
import { snapshotFor } from '../kernel/audience';
import { QUIET_MS, quietIn, quietSince } from './index';

test('who answers, writes, draws, speaks or gives a sign is with us; who does nothing has been quiet since they came', () => {
  const room = lecture({ speak: 'open', draw: 'open' });
  const came = room.state.withUs.ben!.came;
  room.later = QUIET_MS;
  const did = (what: string) =>
    expect(room.state.withUs.ana!.last).toEqual({ what, at: room.events.at(-1)!.at });
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'Yes' });
  did('wrote');
  room.do(ana, { type: 'giveSign', sign: 'agree' });
  did('sign');
  room.do(ana, { type: 'raiseHand' });
  did('hand');
  room.do(ana, { type: 'draw', stroke: { points: [0, 0], colour: 'ink' } });
  did('drew');
  room.do(maren, {
    type: 'ask',
    question: { text: '', kind: 'yesNo', options: [], right: null, anonymous: false },
  });
  room.do(ana, { type: 'answer', question: room.events.at(-1)!.seq, answer: 0 });
  did('answered');
  // Where no names are kept nothing says who answered, or when.
  room.do(maren, {
    type: 'ask',
    question: { text: '', kind: 'yesNo', options: [], right: null, anonymous: true },
  });
  room.do(ben, { type: 'answer', question: room.events.at(-1)!.seq, answer: 0 });
  expect(quietSince(room.state, 'ben')).toBe(came);
  expect(quietIn(room.state, came + QUIET_MS - 1)).toEqual([]);
  expect(quietIn(room.state, room.now)).toEqual(['ben']);
  // Whoever is heard is not quiet, however long they speak.
  room.do(ben, { type: 'microphone', on: true });
  expect(quietIn(room.state, room.now + 10 * QUIET_MS)).toEqual(['ana']);
  room.do(ben, { type: 'microphone', on: false });
  expect(room.state.withUs.ben!.last?.what).toBe('spoke');
});

test('it is for those who teach, of those who are here, and of no teacher', () => {
  const room = lecture();
  expect(Object.keys(room.state.withUs)).toEqual(['ana', 'ben']);
  expect(snapshotFor(room.state, ana).withUs).toEqual({});
  expect(Object.keys(snapshotFor(room.state, maren).withUs)).toEqual(['ana', 'ben']);
  room.happen({ type: 'left', member: 'ben' });
  expect(quietSince(room.state, 'ben')).toBeNull();
  expect(quietIn(room.state, room.now + QUIET_MS)).toEqual(['ana']);
  room.do(maren, { type: 'dismiss' });
  expect(room.state.withUs).toEqual({});
});

import { lecture, maren } from '../../testing/index';
import { dueBy, nextDue } from '../kernel/decide';
import { noticeOf } from '../kernel/telling';
import { shownOf } from './index';

test('time is counted down to a bell, held, lengthened, and rings by itself', () => {
  const room = lecture();
  room.do(maren, { type: 'startTimer', seconds: 300, what: 'Work in pairs' });
  const from = room.events.at(-1)!.at;
  expect(noticeOf(room.events.at(-1)!, room.state)).toBe('5 minutes from now: Work in pairs.');
  const left = (now: number) => shownOf(room.state.timer.on!, now) / 1000;
  expect(left(from + 60_000)).toBe(240);
  expect(nextDue(room.state)?.at).toBe(from + 300_000);

  room.later = 60_000;
  room.do(maren, { type: 'holdTimer', hold: true });
  const held = room.events.at(-1)!.at;
  expect(nextDue(room.state)).toBeNull();
  expect(left(held + 999_000)).toBe(300 - (held - from) / 1000);
  room.later += 120_000;
  room.do(maren, { type: 'holdTimer', hold: false });
  const on = room.events.at(-1)!.at;
  expect(nextDue(room.state)?.at).toBe(from + 300_000 + on - held);
  room.do(maren, { type: 'moreTime', seconds: 60 });
  const rings = from + 360_000 + on - held;
  expect(dueBy(room.state, rings - 1)).toEqual([]);
  room.happen(...dueBy(room.state, rings));
  expect(room.state.timer).toMatchObject({ on: null, rangAt: room.events.at(-1)!.at });
  expect(room.state.notice?.text).toBe('The time is over: Work in pairs.');
});

test('a stopwatch counts up, has no bell and cannot be lengthened', () => {
  const room = lecture();
  room.do(maren, { type: 'startTimer', seconds: null });
  const { at } = room.events.at(-1)!;
  expect(shownOf(room.state.timer.on!, at + 42_000)).toBe(42_000);
  expect(nextDue(room.state)).toBeNull();
  expect(room.refusal(maren, { type: 'moreTime', seconds: 60 })?.code).toBe('no-timer');
  room.do(maren, { type: 'stopTimer' });
  expect(room.state.timer.on).toBeNull();
  expect(room.refusal(maren, { type: 'holdTimer', hold: true })?.code).toBe('no-timer');
  expect(room.do(maren, { type: 'stopTimer' })).toMatchObject({ events: [] });
});

test('what takes longer than four hours is refused, and a class that is dismissed has no timer', () => {
  const room = lecture();
  room.do(maren, { type: 'startTimer', seconds: 14_400 });
  expect(room.refusal(maren, { type: 'moreTime', seconds: 5 })?.code).toBe('no-longer');
  room.do(maren, { type: 'dismiss' });
  expect(room.state.timer.on).toBeNull();
});

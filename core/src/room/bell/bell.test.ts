import { ana, entry, lecture, maren } from '../../testing/index';
import { noticeOf } from '../kernel/telling';

test('some go and some stay: the recording is held, and the class goes on where that is wished after all', () => {
  const room = lecture();
  room.do(maren, { type: 'startRecording' });
  room.do(maren, { type: 'letGo', on: true });
  expect(room.state.bell).toMatchObject({ phase: 'live', overAt: expect.any(Number) });
  expect(room.state.recording.state).not.toBe('on');
  const { length } = room.events;
  room.do(maren, { type: 'letGo', on: true });
  expect(room.events).toHaveLength(length);
  room.do(maren, { type: 'letGo', on: false });
  expect(room.state.bell.overAt).toBeNull();
  expect(noticeOf(room.events.at(-1)!, room.state)).toBe('The class goes on.');
});

test('another who teaches and is here goes on; nobody else', () => {
  const room = lecture();
  const code = (to: string) => room.refusal(maren, { type: 'handOver', to })?.code;
  expect([code('maren'), code('ana'), code('teo')]).toEqual(['self-over', 'not-teaching', 'not-here']);
  room.happen({ ...entry('teo', 'Teo Vanterpool'), role: 'assistant' } as never);
  room.do(maren, { type: 'handOver', to: 'teo' });
  expect(noticeOf(room.events.at(-1)!, room.state)).toMatch(/hands over to Teo Vanterpool\.$/);
  expect(room.refusal(ana, { type: 'handOver', to: 'teo' })?.code).toBe('teachers-only');
});

test('everybody is told how much time is left', () => {
  const room = lecture();
  room.do(maren, { type: 'tellTimeLeft', minutes: 1 });
  expect(noticeOf(room.events.at(-1)!, room.state)).toBe('1 minute left.');
  expect(room.refusal(ana, { type: 'tellTimeLeft', minutes: 5 })?.code).toBe('teachers-only');
});

import { fireEvent, screen } from '@testing-library/react';
import { act } from 'react';
import { setServerTime } from '../../app/clock';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { Lines } from '../live/lines';
import { Seats } from '../seats/Seats';
import { Weak } from './Weak';

/** Measures what it is told to, and keeps how it was eased. */
function measuring(me: typeof ana) {
  const made = roomTools(me, CLASS);
  const eased: string[] = [];
  let sample = { lost: 0, roundTrip: 30 };
  Object.assign(made.tools.call, {
    measured: async () => sample,
    ease: (line: string) => void eased.push(line),
  });
  const pass = async (lost: number, times: number) => {
    sample = { lost, roundTrip: 30 };
    for (let i = 0; i < times; i++) await act(() => jest.advanceTimersByTimeAsync(3000));
  };
  return { ...made, eased, pass };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('with a poor line pictures go before the sound, it is said and told to those who teach, and is over by itself', async () => {
  const { tools, signals, eased, pass } = measuring(ana);
  showInRoom(tools, <Weak />);
  await pass(0, 1);
  expect(screen.queryByRole('status')).toBeNull();
  await pass(0.3, 2);
  expect(screen.getByRole('status').textContent).toMatch(/^Your connection is poor\. Pictures are off/);
  expect(eased.at(-1)).toBe('poor');
  expect(signals.at(-1)).toEqual({ what: 'line', line: 'poor' });
  const told = signals.length;
  // Whoever comes to teach meanwhile knows it too.
  await pass(0.3, 7);
  expect(signals.length).toBeGreaterThan(told);
  fireEvent.click(screen.getByRole('button', { name: 'Pictures all the same' }));
  expect(eased.at(-1)).toBe('good');
  expect(screen.getByRole('status').textContent).toMatch(/^Your connection is weak/);
  await pass(0, 4);
  expect(screen.queryByRole('status')).toBeNull();
  expect(signals.at(-1)).toEqual({ what: 'line', line: 'good' });
  // What was wanted all the same was for that time.
  await pass(0.3, 2);
  expect(eased.at(-1)).toBe('poor');
});

test('a seat says whose connection is weak, until nothing is heard of it for a while', () => {
  setServerTime(0);
  const { tools, hear } = roomTools(maren, CLASS);
  showInRoom(tools, <Seats />);
  const seat = () => screen.getByRole('button', { name: /^Ana Lanyon/ }).getAttribute('aria-label');
  expect(seat()).not.toContain('connection');
  act(() => hear({ what: 'line', line: 'poor', member: 'ana' }));
  expect(seat()).toContain('poor connection, sound only');
  act(() => hear({ what: 'line', line: 'good', member: 'ana' }));
  expect(seat()).not.toContain('connection');
});

test('what was said of a line is forgotten when nothing more is said', () => {
  let say: (signal: object) => void = () => {};
  const lines = new Lines({ onSignal: (l: never) => ((say = l), () => false) } as never);
  setServerTime(Date.now());
  say({ what: 'line', line: 'weak', member: 'ben' });
  say({ what: 'typing', member: 'ana' });
  expect([lines.of('ben'), lines.of('ana')]).toEqual(['weak', 'good']);
  setServerTime(Date.now() + 61_000);
  expect(lines.of('ben')).toBe('good');
});

import { fireEvent, screen } from '@testing-library/react';
import { act } from 'react';
import { CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { ring } from '../heard/ring';
import { FloorPanel } from './FloorPanel';

jest.mock('../heard/ring', () => ({ ring: jest.fn() }));

test('a hand that goes up rings, many together once, and none where that is switched off', () => {
  let now = 10_000;
  jest.spyOn(performance, 'now').mockImplementation(() => now);
  const { tools, happen } = roomTools(maren, [...CLASS, { type: 'handRaised', member: 'ben' }]);
  showInRoom(tools, <FloorPanel />);
  // What was up before one came is no news.
  expect(ring).not.toHaveBeenCalled();
  act(() => happen({ type: 'handRaised', member: 'ana' }));
  expect(jest.mocked(ring).mock.calls).toEqual([['hand']]);
  act(() => happen({ type: 'handLowered', by: 'ana', member: 'ana' }));
  act(() => happen({ type: 'handRaised', member: 'ana' }));
  expect(ring).toHaveBeenCalledTimes(1);
  now += 4000;
  const bell = screen.getByRole('button', { name: 'A hand that goes up rings', pressed: true });
  fireEvent.click(bell);
  expect(bell.getAttribute('aria-pressed')).toBe('false');
  for (const on of [false, true]) {
    act(() => happen({ type: 'handLowered', by: 'ben', member: 'ben' }));
    act(() => happen({ type: 'handRaised', member: 'ben' }));
    expect(ring).toHaveBeenCalledTimes(on ? 2 : 1);
    if (!on) fireEvent.click(bell);
  }
});

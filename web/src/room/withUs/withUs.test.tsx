import { fireEvent, screen, within } from '@testing-library/react';
import { act } from 'react';
import { setServerTime } from '../../app/clock';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { Statements } from '../floor/Statements';
import { Seats } from '../seats/Seats';
import { WithUs } from './WithUs';

const MINUTE = 60_000;

test('who teaches sees how many are quiet or elsewhere, and of each what was seen last, the longest quiet first', async () => {
  const { tools, hear } = roomTools(maren, [...CLASS, { type: 'handRaised', member: 'ana' }]);
  setServerTime(12 * MINUTE);
  showInRoom(tools, <WithUs />);
  act(() => hear({ what: 'hidden', hidden: true, member: 'ben' }));
  fireEvent.click(screen.getByRole('button', { name: '2 here: 2 quiet, 1 elsewhere' }));
  const list = await screen.findByRole('list', { name: 'With us, the longest quiet first' });
  expect(
    within(list)
      .getAllByRole('listitem')
      .map((l) => l.textContent),
  ).toEqual(['Ben Garrowcame 11 min ago, nothing yet, page hidden', 'Ana Lanyonraised a hand 11 min ago']);
  act(() => hear({ what: 'hidden', hidden: false, member: 'ben' }));
  expect(await screen.findByRole('button', { name: '2 here: 2 quiet' })).not.toBeNull();
});

test('seats of the quiet and of hidden pages are told apart, for those who teach', () => {
  const { tools, hear, happen } = roomTools(maren, CLASS);
  setServerTime(12 * MINUTE);
  showInRoom(tools, <Seats />);
  const seat = (name: RegExp) => screen.getByRole('button', { name });
  act(() => hear({ what: 'hidden', hidden: true, member: 'ben' }));
  expect(seat(/^Ben Garrow, here, quiet for long, page hidden/).dataset).toMatchObject({
    ...{ quiet: 'true', hidden: 'true' },
  });
  expect(seat(/^Ana/).dataset).toMatchObject({ quiet: 'true', hidden: 'false' });
  act(() => happen({ type: 'microphone', member: 'ana', on: true }));
  expect(seat(/^Ana/).dataset.quiet).toBe('false');
});

test('a student’s page says that it is hidden, to nobody but the room, and reads that it is seen', () => {
  const { tools, signals } = roomTools(ana, CLASS);
  showInRoom(tools, <Statements />);
  expect(screen.getByText(/see when you last took part, and whether this page is hidden/)).not.toBeNull();
  const hide = (hidden: boolean) => {
    Object.defineProperty(document, 'hidden', { value: hidden, configurable: true });
    document.dispatchEvent(new Event('visibilitychange'));
  };
  hide(true);
  hide(false);
  expect(signals).toEqual([
    { what: 'hidden', hidden: true },
    { what: 'hidden', hidden: false },
  ]);
});

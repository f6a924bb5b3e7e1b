import { fireEvent, screen, waitFor } from '@testing-library/react';
import { act } from 'react';
import type { RoomEvent } from '@nimble-bell/core/room';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { STILL } from '../../testing/recording';
import { Desk } from '../desk/Desk';
import { FloorPanel } from '../floor/FloorPanel';
import { Seats } from '../seats/Seats';
import { HeldReplay } from '../tools/HeldReplay';
import { TalkPanel } from '../tools/talk/TalkPanel';

const limit = (capability: 'react' | 'writeToStudents', state: 'open' | 'closed'): RoomEvent => ({
  ...{ type: 'limitSet', by: 'maren' },
  ...{ capability, state },
});

test('a sign is given by two presses, stands on the desk, and is taken back by pressing it again', async () => {
  const { tools, sent, happen } = roomTools(ana, CLASS);
  showInRoom(tools, <Desk />);
  fireEvent.click(screen.getByRole('button', { name: 'Give a sign' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Lost' }));
  await waitFor(() => expect(sent).toEqual([{ type: 'giveSign', sign: 'lost' }]));
  act(() => happen({ type: 'signGiven', member: 'ana', sign: 'lost' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Your sign: Lost' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Lost', pressed: true }));
  await waitFor(() => expect(sent.at(-1)).toEqual({ type: 'giveSign', sign: null }));
});

test('where signs are closed the desk says why, and nothing can be given', async () => {
  const { tools, sent } = roomTools(ana, [...CLASS, limit('react', 'closed')]);
  showInRoom(tools, <Desk />);
  fireEvent.click(screen.getByRole('button', { name: 'Give a sign' }));
  expect((await screen.findByRole('alert')).textContent).toContain('Signs are closed');
  expect(screen.queryByRole('button', { name: 'Lost' })).toBeNull();
  expect(sent).toEqual([]);
});

test('signs are counted for those who teach, and stand on the seats', async () => {
  const { tools } = roomTools(maren, [
    ...CLASS,
    { type: 'signGiven', member: 'ana', sign: 'slower' },
    { type: 'signGiven', member: 'ben', sign: 'slower' },
  ]);
  showInRoom(
    tools,
    <>
      <FloorPanel />
      <Seats />
    </>,
  );
  expect((await screen.findByRole('list', { name: 'Signs' })).textContent).toBe('Slower2');
  expect(screen.getByRole('button', { name: /^Ana Lanyon/ }).getAttribute('aria-label')).toContain('slower');
});

test('beside a recording hands and signs stand as they were at that moment; where there were none there is nothing', async () => {
  const { tools, room, happen } = roomTools(maren, CLASS);
  const then = () => (
    <HeldReplay
      {...{ room: room.state, at: 0, zone: 'UTC', session: 's', nameOf: (m: string) => m }}
      {...{ pages: { path: '', query: '' }, films: null, clock: STILL }}
    />
  );
  const { unmount } = showInRoom(tools, then());
  expect(screen.queryByTestId('held-then')).toBeNull();
  unmount();
  happen(
    { type: 'handRaised', member: 'ben' },
    { type: 'handRaised', member: 'ana' },
    { type: 'signGiven', member: 'ana', sign: 'lost' },
  );
  showInRoom(tools, then());
  expect((await screen.findByRole('list', { name: 'Signs' })).textContent).toBe('Lost1');
  expect(screen.getByText('2 hands are up: ben and ana.')).toBeTruthy();
});

test('whom one may not write to is not offered', async () => {
  const { tools, happen } = roomTools(ana, CLASS);
  showInRoom(tools, <TalkPanel />);
  const offered = () => {
    fireEvent.click(screen.getByRole('combobox', { name: 'To whom' }));
    return screen.getAllByRole('option', { hidden: true }).map((o) => o.textContent);
  };
  expect(offered()).toEqual(['The class', 'Your teachers']);
  act(() => happen(limit('writeToStudents', 'open')));
  await waitFor(() => expect(offered()).toContain('Ben Garrow (teachers can read it)'));
});

import { fireEvent, screen, waitFor } from '@testing-library/react';
import { act } from 'react';
import type { RoomEvent } from '@nimble-bell/core/room';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../../testing/render';
import { AtHand } from '../AtHand';
import { Captions } from './Captions';

const writer = (member: string): RoomEvent => ({ type: 'captionerSet', by: 'maren', member, on: true });
const line = (text: string, more: object = {}): RoomEvent => ({
  ...{ type: 'captioned', place: 'class', by: 'maren', text },
  ...more,
});
const both = (
  <>
    <Captions at="above" />
    <Captions at="below" />
  </>
);

test('a teacher says who writes captions', async () => {
  const { tools, sent } = roomTools(maren, CLASS);
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Captions/ }));
  fireEvent.click(await screen.findByRole('switch', { name: 'I myself' }));
  expect(sent).toEqual([{ type: 'setCaptioner', member: 'maren', on: true }]);
});

test('who writes sends a line by Enter or with the next sentence, and mends the one before', async () => {
  const { tools, sent, happen, signals, room } = roomTools(maren, [...CLASS, writer('maren')]);
  showInRoom(tools, both);
  const field = await screen.findByLabelText(/^Captions: write what is said/);
  const type = (value: string) => fireEvent.change(field, { target: { value } });
  type('Good e');
  type('Good ev');
  await waitFor(() => expect(signals).toEqual([{ what: 'captioning', text: 'Good ev' }]));
  type('Good evening. The tied');
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(sent).toEqual([
    { type: 'caption', text: 'Good evening.' },
    { type: 'caption', text: 'The tied' },
  ]);
  expect(field).toHaveProperty('value', '');
  // However quickly: it is the line that is on its way.
  fireEvent.keyDown(field, { key: 'ArrowUp' });
  act(() => happen(line('Good evening.'), line('The tied')));
  const { seq } = room.events.at(-1)!;
  expect(await screen.findByLabelText('Mend this line')).toHaveProperty('value', 'The tied');
  type('The tide. Now');
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(sent.at(-1)).toEqual({ type: 'caption', text: 'The tide. Now', instead: seq });
});

test('everybody reads the last lines and what is being written, as large and where they wish', async () => {
  const { tools, hear } = roomTools(ana, [
    ...CLASS,
    writer('maren'),
    line('One'),
    line('Two'),
    line('Three'),
    line('At a table', { place: 'table-1-1' }),
  ]);
  showInRoom(tools, both);
  const lines = await screen.findByTestId('class-captions');
  expect([...lines.children].map((c) => c.textContent)).toEqual(['Two', 'Three']);
  act(() => hear({ what: 'captioning', text: 'Fo', member: 'maren' }));
  expect(lines.textContent).toBe('TwoThreeFo');
  fireEvent.click(screen.getByRole('button', { name: 'How I read them' }));
  fireEvent.click(await screen.findByRole('radio', { name: 'Largest' }));
  expect(screen.getByTestId('class-captions').dataset.size).toBe('largest');
  fireEvent.click(screen.getByRole('switch', { name: 'Show captions' }));
  expect(screen.queryByTestId('class-captions')).toBeNull();
  expect(JSON.parse(localStorage.getItem('captions')!)).toMatchObject({ shown: false, size: 'largest' });
  expect(screen.queryByLabelText(/write what is said/)).toBeNull();
});

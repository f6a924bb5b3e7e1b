import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { RoomEvent } from '@nimble-bell/core/api';
import { STILL } from '../../../testing/recording';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../../testing/render';
import Asked from './Asked';
import HeldThen from '../HeldThen';
import Compose from './Compose';

const board: RoomEvent = { type: 'frontSet', by: 'maren', tool: 'board', place: 'class' };
const asked: RoomEvent = {
  type: 'asked',
  by: 'maren',
  question: {
    ...{ text: 'Where does it turn?', kind: 'point', options: [], right: null, anonymous: false },
    picture: { of: 'board', side: 1 },
  },
  seconds: null,
  live: false,
};
const drawn: RoomEvent = {
  type: 'drawn',
  by: 'maren',
  stroke: { points: [0.1, 0.1, 0.3, 0.3], colour: 'tide' },
  ...{ place: 'class', side: 1 },
};

test('a place is offered to be asked for where there is something to point at, and by one press', () => {
  const { tools, sent, happen } = roomTools(maren, CLASS);
  showInRoom(tools, <Compose close={() => {}} />);
  expect(screen.queryByRole('button', { name: 'A place on it' })).toBeNull();
  act(() => happen(board));
  fireEvent.click(screen.getByRole('button', { name: 'A place on it' }));
  expect(sent).toMatchObject([{ type: 'ask', question: { kind: 'point', options: [], right: null } }]);
});

test('a mark is put by a press, moved by the arrows to the edge and no further, and given', async () => {
  const { tools, sent, room } = roomTools(ana, [...CLASS, board, drawn, asked]);
  const id = room.state.questions.on;
  showInRoom(tools, <Asked />);
  const picture = await screen.findByTestId('pointed');
  // It is the board as it is.
  expect(within(picture).getByRole('img', { name: 'Board with 1 stroke' })).toBeTruthy();
  const over = within(picture).getByRole('group', { name: /^Where on the picture/ });
  jest
    .spyOn(over, 'getBoundingClientRect')
    .mockReturnValue({ left: 100, top: 50, width: 400, height: 200 } as DOMRect);
  expect((screen.getByRole('button', { name: 'Answer' }) as HTMLButtonElement).disabled).toBe(true);
  fireEvent(over, new MouseEvent('pointerdown', { bubbles: true, clientX: 108, clientY: 150 }));
  expect(over.getAttribute('aria-label')).toBe('Your mark is middle left; arrows move it');
  for (let i = 0; i < 5; i++) fireEvent.keyDown(over, { key: 'ArrowLeft' });
  fireEvent.keyDown(over, { key: 'ArrowDown' });
  fireEvent.keyDown(over, { key: 'a' });
  fireEvent.click(screen.getByRole('button', { name: 'Answer' }));
  await act(async () => {});
  expect(sent).toEqual([{ type: 'answer', question: id, answer: { x: 0, y: 0.52 } }]);
});

test('those who teach see the places, where they are dense, and their thirds in words; the class what it is shown', async () => {
  const given = Array.from({ length: 12 }, (_, i): RoomEvent[] => [
    { type: 'entered', member: `s${i}`, name: `Student ${i}`, role: 'student' } as RoomEvent,
    { type: 'answered', member: `s${i}`, question: 0, answer: { x: 0.8 + i / 200, y: 0.2 } },
  ]).flat();
  const { tools, room, happen } = roomTools(maren, [...CLASS, board, drawn, asked]);
  const question = room.state.questions.on!;
  act(() => happen(...given.map((e) => (e.type === 'answered' ? { ...e, question } : e))));
  showInRoom(tools, <Asked />);
  const picture = await screen.findByTestId('pointed');
  expect(picture.querySelectorAll('circle')).toHaveLength(12);
  const over = within(picture).getByRole('group', { name: 'The picture with 12 places on it' });
  await waitFor(() => expect(over.querySelectorAll('path').length).toBeGreaterThan(1));
  const list = screen.getByRole('list', { name: 'What was answered, 12 answers' });
  expect(list.textContent).toBe('Top right12 (100 %)');
  const student = roomTools(ana, [...CLASS, board, drawn, asked]);
  act(() => student.happen({ type: 'answersClosed', by: 'maren', question }));
  const page = showInRoom(student.tools, <Asked />);
  expect(within(page.container).queryByTestId('pointed')).toBeNull();
  const tally = {
    answered: 2,
    points: [
      { x: 0.1, y: 0.1 },
      { x: 0.5, y: 0.5 },
    ],
  };
  act(() => student.happen({ type: 'answersShown', by: 'maren', question, tally, right: null }));
  const shown = await within(page.container).findByTestId('pointed');
  expect(shown.querySelectorAll('circle')).toHaveLength(2);
  expect(page.container.textContent).toContain('In the middle');
});

test('in a recording the places stand on the picture as they were shown, and no earlier', async () => {
  const { tools, room, happen } = roomTools(maren, [...CLASS, board, drawn, asked]);
  const question = room.state.questions.on!;
  const then = () => (
    <HeldThen
      {...{ room: room.state, at: 0, zone: 'UTC', session: 's', nameOf: () => 'Maren Oduya' }}
      pages={{ path: '/pages', query: '' }}
      films={null}
      clock={STILL}
    />
  );
  const { unmount } = showInRoom(tools, then());
  expect(screen.getByText('Where does it turn?')).toBeTruthy();
  expect(screen.queryByTestId('pointed')).toBeNull();
  unmount();
  const points = [0.2, 0.3].map((x) => ({ x, y: 0.5 }));
  act(() =>
    happen({ type: 'answersShown', by: 'maren', question, tally: { answered: 2, points }, right: null }),
  );
  showInRoom(tools, then());
  expect(await screen.findByRole('group', { name: 'The picture with 2 places on it' })).toBeTruthy();
  expect(screen.getByRole('img', { name: 'Board with 1 stroke' })).toBeTruthy();
});

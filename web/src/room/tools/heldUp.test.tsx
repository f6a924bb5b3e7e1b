import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { act } from 'react';
import type { Question } from '@nimble-bell/core/questions';
import type { RoomEvent } from '@nimble-bell/core/room';
import { setServerTime } from '../../app/clock';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { AtHand } from './AtHand';
import { HeldUp } from './HeldUp';
import { namesPassing, PASSING_MS, passingAt } from './pick/passing';

const question = (more: Partial<Question> = {}): Question => ({
  ...{ text: 'Which way does it set?', kind: 'one', options: ['Ebb', 'Flood'], right: 1, anonymous: false },
  ...more,
});
const asked = (more: Partial<Question> = {}): RoomEvent => ({
  ...{ type: 'asked', by: 'maren', question: question(more), seconds: null, live: false },
});
/** The number of the event that asked, in a class where it was the first thing that happened. */
const ID = CLASS.length + 2;
const answered = (member: string, answer: number | number[] | string): RoomEvent => ({
  ...{ type: 'answered', member, question: ID, answer },
});

afterEach(() => localStorage.clear());

test('a question that is asked aloud takes two presses, with its choice of names and time', async () => {
  const { tools, sent } = roomTools(maren, CLASS);
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Ask/ }));
  fireEvent.click(await screen.findByRole('switch', { name: 'Without names' }));
  fireEvent.click(screen.getByRole('button', { name: 'A to D' }));
  expect(sent).toEqual([
    {
      type: 'ask',
      question: { text: '', kind: 'one', options: ['', '', '', ''], right: null, anonymous: true },
      ...{ seconds: null, live: false },
    },
  ]);
});

test('a written question is read as it is written, its fault is said, and the right one is pressed', async () => {
  const { tools, sent } = roomTools(maren, CLASS);
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Ask/ }));
  const field = await screen.findByLabelText('Or written');
  fireEvent.change(field, { target: { value: 'Which?\nA) Ebb\nB) ebb' } });
  expect(screen.getByRole('alert').textContent).toBe('Two of the choices are the same.');
  expect(screen.getByRole('button', { name: 'Ask the class' })).toHaveProperty('disabled', true);
  fireEvent.change(field, { target: { value: 'Which?\nA) Ebb\nB) Flood' } });
  fireEvent.click(screen.getByRole('button', { name: 'B Flood' }));
  fireEvent.click(screen.getByRole('button', { name: 'Ask the class' }));
  expect(sent.at(-1)).toMatchObject({
    question: { text: 'Which?', kind: 'one', options: ['Ebb', 'Flood'], right: 1 },
  });
});

test('a student answers by one press, sees that it is in, and what the class said when it is shown', async () => {
  const { tools, sent, happen } = roomTools(ana, [...CLASS, asked({ right: null })]);
  showInRoom(tools, <HeldUp />);
  expect(await screen.findByText('Those who teach see your answer with your name.')).not.toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'B Flood' }));
  expect(sent).toEqual([{ type: 'answer', question: ID, answer: 1 }]);
  act(() => happen(answered('ana', 1)));
  await screen.findByRole('button', { name: 'B Flood', pressed: true });
  act(() =>
    happen(
      { type: 'answersClosed', by: 'maren', question: ID },
      {
        ...{ type: 'answersShown', by: 'maren', question: ID, right: 1 },
        tally: { answered: 3, counts: [2, 1] },
      },
    ),
  );
  const bars = within(screen.getByRole('list', { name: 'What was answered, 3 answers' })).getAllByRole(
    'listitem',
  );
  expect(bars.map((b) => b.textContent)).toEqual(['A Ebb2 (67 %)', 'B Flood right yours1 (33 %)']);
  expect(screen.queryByRole('button', { name: 'B Flood' })).toBeNull();
});

test('what is put in order is moved by its buttons and given as it stands', async () => {
  const { tools, sent } = roomTools(ana, [
    ...CLASS,
    asked({ kind: 'order', options: ['Sail', 'Moor', 'Eat'], right: null }),
  ]);
  showInRoom(tools, <HeldUp />);
  fireEvent.click(await screen.findByRole('button', { name: 'Moor earlier' }));
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Moor later');
  fireEvent.click(screen.getByRole('button', { name: 'Answer' }));
  expect(sent).toEqual([{ type: 'answer', question: ID, answer: [1, 0, 2] }]);
});

test('several, a number and words are made first and then given', async () => {
  for (const [kind, make, answer] of [
    ['several', () => fireEvent.click(screen.getByRole('checkbox', { name: 'Flood' })), [1]],
    [
      'number',
      () => fireEvent.change(screen.getByLabelText('Your number'), { target: { value: '2.5' } }),
      2.5,
    ],
    [
      'words',
      () => fireEvent.change(screen.getByLabelText('Your answer'), { target: { value: 'ebb' } }),
      'ebb',
    ],
  ] as const) {
    const { tools, sent } = roomTools(ana, [...CLASS, asked({ kind, right: null })]);
    const { unmount } = showInRoom(tools, <HeldUp />);
    const give = await screen.findByRole('button', { name: 'Answer' });
    expect(give).toHaveProperty('disabled', true);
    make();
    fireEvent.click(give);
    expect(sent).toEqual([{ type: 'answer', question: ID, answer }]);
    unmount();
  }
});

test('who teaches sees answers as they come, with names and who is missing; without names, none', async () => {
  const { tools, sent, happen } = roomTools(maren, [...CLASS, asked(), answered('ana', 0)]);
  const { unmount } = showInRoom(tools, <HeldUp />);
  expect(await screen.findByText(/1 of 2 have answered/)).not.toBeNull();
  expect(screen.getByTestId('asked').textContent).toContain('Ana Lanyon: Ebb');
  expect(screen.getByText('Still to answer: Ben Garrow')).not.toBeNull();
  act(() => happen(answered('ben', 1)));
  expect(await screen.findByText(/2 of 2 have answered/)).not.toBeNull();
  for (const name of ['Show with the right answer', 'Close the answers', 'Put it away'])
    fireEvent.click(screen.getByRole('button', { name }));
  expect(sent).toEqual([{ type: 'showAnswers', right: true }, { type: 'closeAnswers' }, { type: 'putAway' }]);
  unmount();
  const without = roomTools(maren, [...CLASS, asked({ anonymous: true }), answered('#9', 0)]);
  showInRoom(without.tools, <HeldUp />);
  expect(await screen.findByText(/No names are kept/)).not.toBeNull();
  expect(screen.queryByText('Who answered what')).toBeNull();
});

test('a time of five minutes takes two presses; everybody sees it, and who teaches holds and lengthens it', async () => {
  const { tools, sent, happen } = roomTools(maren, CLASS);
  showInRoom(
    tools,
    <>
      <AtHand />
      <HeldUp />
    </>,
  );
  fireEvent.click(screen.getByRole('button', { name: /^Time/ }));
  fireEvent.click(await screen.findByRole('button', { name: '5 min' }));
  expect(sent).toEqual([{ type: 'startTimer', seconds: 300 }]);
  setServerTime(1000 * (CLASS.length + 2) + 61_000);
  act(() => happen({ type: 'timerStarted', by: 'maren', seconds: 300, what: 'Work in pairs' }));
  const strip = await screen.findByTestId('time');
  expect(within(strip).getByRole('timer').textContent).toBe('3:59');
  expect(strip.textContent).toContain('Work in pairs');
  for (const name of ['1 minute more', 'Hold it', 'Take it away'])
    fireEvent.click(within(strip).getByRole('button', { name }));
  expect(sent.slice(1)).toEqual([
    { type: 'moreTime', seconds: 60 },
    { type: 'holdTimer', hold: true },
    { type: 'stopTimer' },
  ]);
});

test('who is picked reads so and can pass it on; who teaches gives the floor', async () => {
  const picked: RoomEvent = { type: 'picked', by: 'maren', member: 'ana', slowly: false, insteadOf: null };
  const own = roomTools(ana, [...CLASS, picked]);
  const { unmount } = showInRoom(own.tools, <HeldUp />);
  expect((await screen.findByTestId('pick')).textContent).toContain('You are asked.');
  fireEvent.click(screen.getByRole('button', { name: 'Pass it on' }));
  expect(own.sent).toEqual([{ type: 'passOn' }]);
  unmount();
  const { tools, sent } = roomTools(maren, [...CLASS, picked]);
  showInRoom(
    tools,
    <>
      <AtHand />
      <HeldUp />
    </>,
  );
  fireEvent.click(await screen.findByRole('button', { name: 'Give the floor' }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Let the names pass' }));
  fireEvent.click(screen.getByRole('button', { name: /^Pick/ }));
  await waitFor(() =>
    expect(sent).toEqual([
      { type: 'giveFloor', member: 'ana' },
      { type: 'pick', slowly: true },
    ]),
  );
});

test('names pass more and more slowly and end at who is asked', () => {
  const names = namesPassing(['Ana', 'Ben', 'Celia'], 'Ben', 7000);
  expect(names.at(-1)).toBe('Ben');
  expect(names.slice(0, -1)).not.toContain('Ben');
  const steps = Array.from({ length: 31 }, (_, i) => passingAt((i * PASSING_MS) / 30));
  expect(steps[0]).toBe(0);
  expect(steps.at(-1)).toBe(names.length - 1);
  const moved = steps.slice(1).map((s, i) => s - steps[i]!);
  expect(moved.slice(0, 10).reduce((a, b) => a + b)).toBeGreaterThan(
    2 * moved.slice(-10).reduce((a, b) => a + b),
  );
  expect(namesPassing(['Ben'], 'Ben', 0)).toEqual(['Ben']);
});

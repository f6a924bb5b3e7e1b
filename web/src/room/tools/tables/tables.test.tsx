import { fireEvent, screen, within } from '@testing-library/react';
import { act } from 'react';
import { OPEN_AT_TABLES } from '@nimble-bell/core/limits';
import type { RoomEvent } from '@nimble-bell/core/room';
import { setServerTime } from '../../../app/clock';
import { answerRequests } from '../../../testing/answers';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../../testing/render';
import { AtHand } from '../AtHand';
import { HeldUp } from '../HeldUp';
import { Board } from '../board/Board';
import { Tables } from './Tables';

const laid = (more: object = {}): RoomEvent[] => [
  {
    type: 'tablesLaid',
    by: 'maren',
    tables: [
      { place: 'table-1-1', name: 'Table 1', members: ['ana'] },
      { place: 'table-1-2', name: 'Table 2', members: ['ben'] },
    ],
    ...{
      until: 600_000,
      task: 'Read the table',
      files: [],
      limits: { speak: 'open' },
      sheet: '',
      choose: false,
      paused: false,
      recorded: false,
    },
    ...more,
  },
];
const seated: RoomEvent[] = [
  ...laid(),
  {
    type: 'wentTo',
    by: 'maren',
    moves: [
      { member: 'ana', to: 'table-1-1' },
      { member: 'ben', to: 'table-1-2' },
    ],
  },
];
beforeEach(() => setServerTime(300_000));

const CHART = {
  ...{ id: 'chart', sessionId: null, name: 'Chart.pdf', url: '/chart' },
  kind: 'file',
  bytes: 9,
};
const list = (tools: ReturnType<typeof roomTools>['tools']) =>
  `/api/courses/${tools.connection.view.info!.course.id}/materials`;

test('files that the class has are given with what is to be done, and opened at the tables', async () => {
  const { tools, sent, happen } = roomTools(maren, CLASS);
  const own = { ...CHART, id: 'own', name: 'Answers.pdf', forTeachers: true };
  answerRequests({
    [list(tools)]: [CHART, own, { ...CHART, id: 'late', sessionId: 'another', name: 'Late' }],
  });
  showInRoom(
    tools,
    <>
      <AtHand />
      <HeldUp />
    </>,
  );
  fireEvent.click(screen.getByRole('button', { name: /^Tables/ }));
  const choice = within(await screen.findByRole('group', { name: 'Files for it' }));
  const chart = await choice.findByRole('button', { name: 'Chart.pdf' });
  expect(choice.getAllByRole('button').map((b) => b.textContent)).toEqual([
    'Chart.pdf',
    'From this machine …',
  ]);
  for (const pressed of ['true', 'false', 'true']) {
    fireEvent.click(chart);
    expect(chart.getAttribute('aria-pressed')).toBe(pressed);
  }
  fireEvent.click(screen.getByRole('button', { name: 'To the tables' }));
  const files = [{ material: 'chart', name: 'Chart.pdf' }];
  expect(sent).toMatchObject([{ type: 'layTables', files }]);
  act(() => happen(...laid({ files: [...files, { material: 'gone', name: 'Taken away.pdf' }] })));
  const link = await screen.findByRole('link', { name: 'Chart.pdf' });
  expect([link.getAttribute('href'), link.getAttribute('target')]).toEqual(['/chart', '_blank']);
  expect(screen.getByText('Taken away.pdf').tagName).toBe('LI');
});

test('what they may there is said by a rule sheet: before, then of all tables, then of the one where one is', async () => {
  const { tools, sent, happen } = roomTools(maren, CLASS);
  const exam = { id: 'exam', name: 'Examination', about: 'Silent', own: false };
  const limits = { speak: 'closed', seeMarks: 'closed' } as const;
  answerRequests({
    [list(tools)]: [],
    [list(tools).replace('materials', 'rules')]: { sheets: [{ ...exam, limits }] },
  });
  showInRoom(
    tools,
    <>
      <AtHand />
      <HeldUp />
    </>,
  );
  const choose = async (label: string, name: string) => {
    const choice = await screen.findByLabelText<HTMLSelectElement>(label);
    const option = await within(choice).findByRole('option', { name: new RegExp(`${name}$`) });
    fireEvent.change(choice, { target: { value: (option as HTMLOptionElement).value } });
    return choice;
  };
  fireEvent.click(screen.getByRole('button', { name: /^Tables/ }));
  await choose('What they may there', 'Examination');
  fireEvent.click(screen.getByRole('button', { name: 'To the tables' }));
  const byExam = { limits: { speak: 'closed' }, sheet: 'Examination' } as const;
  expect(sent).toMatchObject([{ type: 'layTables', ...byExam }]);
  act(() => happen(...laid(byExam)));
  const shown = (choice: HTMLSelectElement) => choice.selectedOptions[0]!.textContent;
  expect(shown(await screen.findByLabelText('What they may at the tables'))).toBe('Limits: Examination');
  await choose('What they may at the tables', 'Everything open');
  expect(sent.at(-1)).toEqual({ type: 'limitTables', limits: OPEN_AT_TABLES });
  // At a table it is that table's own; a sheet that somebody else has is told by its name.
  const theirs = { limits: { draw: 'closed' }, sheet: 'Quiet work' } as const;
  act(() =>
    happen(
      { type: 'tablesLimited', by: 'maren', place: 'table-1-1', ...theirs },
      { type: 'wentTo', by: 'maren', moves: [{ member: 'maren', to: 'table-1-1' }] },
    ),
  );
  expect(shown(await screen.findByLabelText('What they may at this table'))).toBe('Limits: Quiet work');
  await choose('What they may at this table', 'As in the class');
  expect(sent.at(-1)).toEqual({ type: 'limitTables', limits: {} });
});

test('tables by lot for ten minutes take two presses; who sits where is changed by two more', async () => {
  const { tools, sent } = roomTools(maren, CLASS);
  answerRequests({ [list(tools)]: [] });
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Tables/ }));
  const go = await screen.findByRole('button', { name: 'To the tables' });
  const one = screen.getByRole('region', { name: 'Table 1' });
  const two = screen.getByRole('region', { name: 'Table 2' });
  const name = within(one).getAllByRole('button')[0]!;
  fireEvent.click(name);
  expect(screen.getByText(/ sit\?$/).textContent).toMatch(/^Where does .+ sit\?$/);
  fireEvent.click(within(two).getByRole('button', { name: 'Seat here' }));
  expect(within(one).queryAllByRole('button')).toEqual([]);
  fireEvent.click(go);
  expect(sent).toMatchObject([{ type: 'layTables', seconds: 600, limits: OPEN_AT_TABLES }]);
  const { tables } = sent[0] as { tables: { members: string[] }[] };
  expect(tables.map((t) => [...t.members].sort())).toEqual([[], ['ana', 'ben']]);
});

test('whoever teaches sees who speaks and which table asks, goes there, tells all, and calls everybody back', async () => {
  const { tools, sent, happen, voice } = roomTools(maren, [...CLASS, ...seated]);
  showInRoom(
    tools,
    <>
      <HeldUp />
      <Tables />
    </>,
  );
  const two = await screen.findByRole('region', { name: 'Table 2' });
  act(() => voice({ member: 'ben', since: 290_000 }));
  expect(within(two).getByRole('img', { name: 'speaking' })).not.toBeNull();
  act(() => happen({ type: 'helpCalled', place: 'table-1-2', on: true }));
  expect(within(two).getByText('Asks for you')).not.toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Table 2 asks' }));
  fireEvent.click(within(two).getByRole('button', { name: 'Go to Table 2' }));
  const word = screen.getByRole('textbox', { name: 'A word to all tables' });
  fireEvent.change(word, { target: { value: 'Two minutes' } });
  fireEvent.keyDown(word, { key: 'Enter' });
  fireEvent.click(screen.getByRole('button', { name: 'Everybody back' }));
  expect(sent).toEqual([
    { type: 'goTo', place: 'table-1-2' },
    { type: 'goTo', place: 'table-1-2' },
    { type: 'wordToTables', text: 'Two minutes' },
    { type: 'endTables' },
  ]);
  act(() => happen({ type: 'backSoon', by: 'maren', until: 330_000 }));
  expect(screen.getByRole('timer').textContent).toBe('0:30');
  fireEvent.click(screen.getByRole('button', { name: 'Back at once' }));
  expect(sent.at(-1)).toEqual({ type: 'endTables', now: true });
  fireEvent.click(within(two).getAllByRole('button')[0]!);
  fireEvent.click(
    within(screen.getByRole('region', { name: 'In the class' })).getByRole('button', { name: 'Seat here' }),
  );
  expect(sent.at(-1)).toEqual({ type: 'seatAt', member: 'ben', place: 'class' });
});

test('a student at a table reads what to do, calls a teacher, and sees how many tables come before', async () => {
  const { tools, sent, happen } = roomTools(ana, [...CLASS, ...seated]);
  showInRoom(tools, <HeldUp />);
  const strip = await screen.findByTestId('tables');
  expect(strip.textContent).toContain('Table 1');
  expect(strip.textContent).toContain('Read the table');
  fireEvent.click(screen.getByRole('button', { name: 'Call a teacher' }));
  expect(sent).toEqual([{ type: 'callHelp', on: true }]);
  act(() =>
    happen(
      { type: 'helpCalled', place: 'table-1-2', on: true },
      { type: 'helpCalled', place: 'table-1-1', on: true },
    ),
  );
  expect(screen.getByRole('status').textContent).toBe('A teacher comes: 1 table before you.');
  act(() => happen({ type: 'wentTo', by: 'maren', moves: [{ member: 'maren', to: 'table-1-2' }] }));
  expect(screen.getByRole('status').textContent).toBe('A teacher comes to you next.');
});

test('where everybody chooses, a table is taken by one press', async () => {
  const { tools, sent } = roomTools(ana, [...CLASS, ...laid({ choose: true })]);
  showInRoom(tools, <Tables />);
  fireEvent.click(await screen.findByRole('button', { name: 'Sit at Table 2' }));
  expect(sent).toEqual([{ type: 'goTo', place: 'table-1-2' }]);
});

test('what the tables made is shown to the class one after another, and its own board comes back', async () => {
  const back: RoomEvent[] = [
    ...seated,
    {
      type: 'textPut',
      by: 'ben',
      text: { text: 'Springs', at: [0.1, 0.1], colour: 'ink' },
      ...{ place: 'table-1-2', side: 1 },
    },
    { type: 'tablesCleared', by: 'maren' },
    { type: 'wentTo', by: 'maren', moves: [{ member: 'ben', to: 'class' }] },
  ];
  const { tools, sent, happen } = roomTools(maren, [...CLASS, ...back]);
  showInRoom(tools, <Board />);
  fireEvent.click(await screen.findByRole('button', { name: 'Table 2' }));
  expect(sent).toEqual([{ type: 'showWork', place: 'table-1-2' }]);
  expect(screen.queryByText('Springs')).toBeNull();
  act(() =>
    happen({
      ...{ type: 'workShown', by: 'maren', from: 'table-1-2', title: 'Table 2' },
      ...{ ground: 'plain', unnamed: false },
      marks: [{ kind: 'text', text: 'Springs', at: [0.1, 0.1], colour: 'ink', seq: 3, by: 'ben' }],
    }),
  );
  expect(screen.getAllByText(/Springs/).length).toBeGreaterThan(0);
  fireEvent.click(screen.getByRole('button', { name: 'The class’s own board' }));
  expect(sent.at(-1)).toEqual({ type: 'putWorkBack' });
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { importOf, readAndCompare, rowsOf, summaryOf, type ListAnswer } from '@nimble-bell/core/roster';
import type { CourseDetail } from '@nimble-bell/core/api';
import { CourseContext } from '../app/course';
import { answerRequests, asked } from '../testing/answers';
import { course, member, show } from '../testing/render';
import { ClassPage } from './ClassPage';
import type { MoreOrder, ReadOrder, SaveOrder } from './listReader';

// The worker's own work, without the thread that jsdom does not have.
jest.mock('./listReader', () => ({
  ListReader: class {
    last: { answer: ListAnswer; settled: ReadOrder['settled'] } | null = null;
    async read({ fields, mended, settled, ...order }: ReadOrder) {
      const more = { mended: new Map(mended), settled: new Map(settled), ...(fields ? { fields } : {}) };
      this.last = { answer: readAndCompare({ ...order, ...more }), settled };
      return summaryOf(this.last.answer);
    }
    async save(chosen: SaveOrder) {
      return JSON.stringify(importOf(this.last!.answer.comparison, new Map(this.last!.settled), chosen));
    }
    async more({ kind, from, count }: MoreOrder) {
      return rowsOf(this.last!.answer, kind, from, count);
    }
    close() {}
  },
}));

const MEMBERS = '/api/courses/course/members';
const ben = member({
  id: 'm2',
  name: 'Ben Garrow',
  email: 'ben@saltmarsh.example',
  invitation: 'failed',
  group: 'B',
});
const outcome = {
  changeId: 'c',
  words: 'Done',
  people: [{ member: 'm2', name: 'Ben Garrow', words: 'leaves: the link is shut' }],
  mail: [{ topic: 'goodbye', count: 1, names: ['Ben Garrow'] }],
};

function open(members = [member(), ben], detail: Partial<CourseDetail> = {}) {
  answerRequests({
    [MEMBERS]: members,
    [`${MEMBERS}/history`]: [],
    '/api/courses/course/class-link': { path: null, passcode: null },
    [`POST ${MEMBERS}`]: outcome,
    [`POST ${MEMBERS}/preview`]: outcome,
  });
  const counts = {
    students: members.filter((m) => m.role === 'student').length,
    invited: 0,
    undelivered: 0,
    recordings: 0,
  };
  show(<CourseContext value={course({ counts, ...detail })}>{<ClassPage />}</CourseContext>);
}
const bodies = () => asked.filter((a) => a.method === 'POST' && a.path === MEMBERS).map((a) => a.body);

test('the class list shows where each person is and what became of their invitation', async () => {
  open();
  const grid = await screen.findByRole('grid', { name: 'Class list' });
  expect(within(grid).getAllByText(/Azores/)).toHaveLength(2);
  expect(within(grid).getByText('not delivered')).toBeTruthy();
  fireEvent.click(within(grid).getByRole('button', { name: 'Name' }));
  fireEvent.click(within(grid).getByRole('button', { name: /^Name/ }));
  expect(
    within(grid)
      .getAllByRole('row')
      .map((r) => r.textContent)
      .at(1),
  ).toContain('Ben Garrow');
});

test('a cell is changed where it stands: Enter keeps it, Escape leaves it', async () => {
  open();
  const name = await screen.findByText('Ana Lanyon');
  fireEvent.doubleClick(name);
  const cell = screen.getByLabelText('Name of Ana Lanyon');
  fireEvent.change(cell, { target: { value: 'Ana L. Lanyon' } });
  fireEvent.keyDown(cell, { key: 'Escape' });
  expect(bodies()).toEqual([]);
  fireEvent.doubleClick(screen.getByText('Ana Lanyon'));
  fireEvent.change(screen.getByLabelText('Name of Ana Lanyon'), { target: { value: 'Ana L. Lanyon' } });
  fireEvent.keyDown(screen.getByLabelText('Name of Ana Lanyon'), { key: 'Enter' });
  await waitFor(() =>
    expect(bodies()).toEqual([{ edit: 'change', members: ['m1'], fields: { name: 'Ana L. Lanyon' } }]),
  );
});

test('people are chosen by keyboard; what taking them off means is said before it is done', async () => {
  open();
  const grid = await screen.findByRole('grid', { name: 'Class list' });
  fireEvent.keyDown(grid, { key: 'ArrowDown' });
  fireEvent.keyDown(grid, { key: ' ' });
  fireEvent.click(screen.getByRole('button', { name: 'Take off the list' }));
  const dialog = await screen.findByRole('dialog');
  await waitFor(() => expect(within(dialog).getByText(/leaves: the link is shut/)).toBeTruthy());
  expect(within(dialog).getByText(/1 person gets word that they are off the list/)).toBeTruthy();
  expect(bodies()).toEqual([]);
  fireEvent.click(within(dialog).getByRole('button', { name: 'Take 1 person off' }));
  await waitFor(() => expect(bodies()).toEqual([{ edit: 'drop', members: ['m2'] }]));
});

test('an assistant sees the list, and no way to change it', async () => {
  open([member()], { role: 'assistant' });
  fireEvent.doubleClick(await screen.findByText('Ana Lanyon'));
  expect(screen.queryByLabelText('Name of Ana Lanyon')).toBeNull();
  expect(screen.queryByRole('button', { name: 'Import a class list' })).toBeNull();
});

const TEXT = [
  'Name,E-mail,Level',
  'Ana Lanyon,ana@saltmarsh.example,B2',
  'GARROW Ben,ben.garrow@saltmarsh.example,',
  'Cleo Penhale,cleo@saltmarsh,',
].join('\n');

test('an import is compared while it is typed, mended in place, and written only when it is pressed', async () => {
  open();
  fireEvent.click(await screen.findByRole('button', { name: 'Import a class list' }));
  fireEvent.change(screen.getByLabelText('The list'), { target: { value: TEXT } });
  const counts = () => screen.getByTestId('roster-counts').textContent;
  await waitFor(() => expect(counts()).toBe('0 new, 1 changed, 0 not in it, 1 bad row'));
  fireEvent.change(await screen.findByLabelText('E-mail of line 4'), {
    target: { value: 'cleo@saltmarsh.example' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Mend' }));
  await waitFor(() => expect(counts()).toBe('1 new, 1 changed, 0 not in it, 0 bad rows'));
  fireEvent.click(screen.getByRole('button', { name: 'The same, with a new address' }));
  await waitFor(() => expect(counts()).toBe('1 new, 2 changed, 0 not in it, 0 bad rows'));
  expect(bodies()).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Add 1 person, change 2' }));
  await waitFor(() => expect(bodies()).toHaveLength(1));
  expect(bodies()[0]).toMatchObject({
    edit: 'import',
    rows: [
      { name: 'Cleo Penhale', line: 4 },
      { name: 'Ana Lanyon', extra: { Level: 'B2' } },
      { email: 'ben.garrow@saltmarsh.example' },
    ],
    settled: [{ line: 3, as: 'same' }],
    drop: [],
    invite: false,
  });
});

test('a guest is added for one session, with the rights chosen', async () => {
  open();
  fireEvent.click(await screen.findByRole('button', { name: 'Add a person' }));
  fireEvent.change(screen.getByLabelText(/^Name/), { target: { value: 'Petra Quill' } });
  fireEvent.change(screen.getByLabelText(/^E-mail/), { target: { value: 'petra@example.org' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add Petra Quill' }));
  await waitFor(() => expect(bodies()).toHaveLength(1));
  expect(bodies()[0]).toMatchObject({ edit: 'add', person: { role: 'student', scope: null, until: null } });
});

test('a new group is told to the person: what it does is shown before it is saved', async () => {
  open();
  fireEvent.doubleClick(await screen.findByText('B', { selector: '[role=gridcell]' }));
  const cell = screen.getByLabelText('Group of Ben Garrow');
  fireEvent.change(cell, { target: { value: 'C' } });
  fireEvent.keyDown(cell, { key: 'Enter' });
  const dialog = await screen.findByRole('dialog');
  expect(bodies()).toEqual([]);
  await waitFor(() => expect(within(dialog).getByText(/leaves: the link is shut/)).toBeTruthy());
  fireEvent.click(within(dialog).getByRole('button', { name: 'Change it' }));
  await waitFor(() =>
    expect(bodies()).toEqual([{ edit: 'change', members: ['m2'], fields: { group: 'C' } }]),
  );
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { CutTable } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../../testing/answers';
import { playable, recording, seek } from '../../testing/recording';
import { show } from '../../testing/render';
import ChaptersPanel from '../ChaptersPanel';
import { CutPage } from './CutPage';

const table = (more: Partial<CutTable> = {}): CutTable => ({
  whole: recording({ silences: [{ from: 29_000, until: 31_000 }], teaching: true, caring: true }),
  inForce: null,
  state: 'ready',
  progress: 1,
  history: [],
  people: [{ id: 'ana', name: 'Ana Lanyon' }],
  ...more,
});

function cut(of: CutTable) {
  answerRequests({ '/api/recordings/undefined/cuts': of, 'PUT /api/recordings/r/cuts': {} });
  playable();
  show(<CutPage />);
}
const fates = () =>
  within(screen.getByRole('list', { name: 'Stretches' }))
    .getAllByRole('combobox')
    .map((c) => (c as HTMLSelectElement).value);
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

test('what is left out before a moment goes into the silence near it, is taken back, and is sent as marks', async () => {
  cut(table());
  await screen.findByRole('heading', { name: 'Cut: Lecture 3' });
  expect(fates()).toEqual(['kept']);
  seek(28);
  press('Leave out all before');
  expect(fates()).toEqual(['out', 'kept']);
  expect(screen.getByLabelText('Begins at 0:30')).toBeTruthy();
  press('A step back');
  expect(fates()).toEqual(['kept']);
  fireEvent.click(screen.getByRole('checkbox', { name: 'In the nearest silence' }));
  press('Leave out all before');
  seek(50);
  fireEvent.keyDown(document.body, { key: 'x' });
  expect(fates()).toEqual(['out', 'kept', 'kept']);
  fireEvent.change(screen.getAllByRole('combobox', { name: /^What becomes of/ })[2]!, {
    target: { value: 'silent' },
  });
  expect(screen.getByText('0:32 of 1:00')).toBeTruthy();
  press('Cut it so');
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'PUT')).toMatchObject({
      path: '/api/recordings/r/cuts',
      body: {
        after: null,
        nobody: [],
        marks: [
          { from: 0, fate: 'out' },
          { from: 28_000, fate: 'kept' },
          { from: 50_000, fate: 'silent' },
        ],
      },
    }),
  );
});

test('a stretch begins where one types, within its neighbours; and is made one with the next', async () => {
  cut(table());
  await screen.findByRole('heading', { name: 'Cut: Lecture 3' });
  fireEvent.click(screen.getByRole('checkbox', { name: 'In the nearest silence' }));
  for (const s of [20, 40]) {
    seek(s);
    press('Divide here (X)');
  }
  const type = (label: string, value: string) => {
    const field = screen.getByLabelText(label);
    fireEvent.change(field, { target: { value } });
    fireEvent.blur(field);
  };
  type('Begins at 0:20', '0:45');
  expect(screen.getByText('From 0:00 to 0:40')).toBeTruthy();
  type('Begins at 0:20', '0:25.5');
  expect(screen.getByLabelText('Begins at 0:25.5')).toBeTruthy();
  fireEvent.click(screen.getAllByRole('button', { name: 'One with the next' })[1]!);
  expect(fates()).toEqual(['kept', 'kept']);
});

test('what is left out is passed over as it plays, and where nothing is left it cannot be cut so', async () => {
  const marks = [
    { from: 0, fate: 'kept' as const },
    { from: 10_000, fate: 'out' as const },
    { from: 20_000, fate: 'kept' as const },
  ];
  const info = { number: 2, by: 'Maren Oduya', at: Date.UTC(2026, 9, 7), lengthMs: 50_000, nobody: [] };
  cut(table({ inForce: 2, history: [{ ...info, marks }] }));
  await screen.findByRole('heading', { name: 'Cut: Lecture 3' });
  Object.defineProperty(HTMLMediaElement.prototype, 'paused', { configurable: true, get: () => false });
  seek(12);
  expect(document.querySelector('audio')!.currentTime).toBe(20);
  Object.defineProperty(HTMLMediaElement.prototype, 'paused', { configurable: true, get: () => true });
  const all = () => screen.getAllByRole('combobox', { name: /^What becomes of/ });
  for (const i of [0, 2]) fireEvent.change(all()[i]!, { target: { value: 'out' } });
  expect(screen.getByText(/nothing is left/)).toBeTruthy();
  expect((screen.getByRole('button', { name: 'Cut it so' }) as HTMLButtonElement).disabled).toBe(true);
  press('As it was recorded, again');
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'PUT')).toMatchObject({
      path: '/api/recordings/r/cuts/in-force',
      body: { number: null, after: 2 },
    }),
  );
});

test('chapters are called otherwise, added where the film is, taken away, and come by themselves again', async () => {
  answerRequests({ 'PUT /api/recordings/r/chapters': {} });
  const film = { seek: jest.fn() } as never;
  show(<ChaptersPanel recording={recording({ chaptersWritten: true })} position={12_000} film={film} />);
  fireEvent.change(screen.getByLabelText('Chapter at 0:00'), { target: { value: 'Hello' } });
  press('A chapter at 0:12');
  fireEvent.change(screen.getByLabelText('Chapter at 0:12'), { target: { value: 'The gauge' } });
  press('No chapter at 0:40');
  press('Save the chapters');
  const sent = () => asked.filter((a) => a.method === 'PUT').map((a) => a.body);
  await waitFor(() =>
    expect(sent()).toEqual([
      {
        chapters: [
          { title: 'Hello', position: 0 },
          { title: 'The gauge', position: 12_000 },
        ],
      },
    ]),
  );
  press('As they come by themselves');
  await waitFor(() => expect(sent()[1]).toEqual({ chapters: null }));
});

import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { RoomEvent } from '@nimble-bell/core/api';
import { boardSvg } from '@nimble-bell/core/board';
import type { OnBoard } from '@nimble-bell/core/room';
import { ana, entry, maren, pictured } from '@nimble-bell/core/testing';
import { roomTools, showInRoom } from '../../../testing/render';
import { boardLines, boardWords } from './describe';
import { say } from '../../../app/notices';
import { asJpeg, NO_PICTURE } from '../../../ui/asJpeg';
import { picturesPdf } from './picturesPdf';
import BoardStage from './BoardStage';

jest.mock('../../../ui/asJpeg', () => ({ ...jest.requireActual('../../../ui/asJpeg'), asJpeg: jest.fn() }));

jest.mock('../../../app/notices', () => ({ say: jest.fn() }));

const limit = (capability: 'draw' | 'attachFiles', state: 'open' | 'closed' = 'open'): RoomEvent => ({
  ...{ type: 'limitSet', by: 'maren', capability, state },
});
const CLASS: RoomEvent[] = [
  entry('maren', 'Maren Oduya', 'teacher'),
  { type: 'rangIn', by: 'maren' },
  entry('ana'),
  limit('draw'),
];
const on = { place: 'class', side: 1 };
const text = (words: string, by = 'ana'): RoomEvent => ({
  ...{ type: 'textPut', by, ...on },
  text: { text: words, at: [0.03, 0.07], colour: 'ink' },
});
const stroke: RoomEvent = {
  ...{ type: 'drawn', by: 'ana', ...on },
  stroke: { points: [0.1, 0.1, 0.3, 0.3], colour: 'tide' },
};

test('a student moves and takes off what is their own, without a pointer, and takes the last back', async () => {
  const { tools, sent } = roomTools(ana, [...CLASS, text('Springs', 'maren'), text('Neaps'), stroke]);
  showInRoom(tools, <BoardStage />);
  const mine = tools.connection.view.state!.board.marks.filter((m) => m.by === 'ana').map((m) => m.seq);
  fireEvent.click(screen.getByRole('button', { name: 'Move' }));
  fireEvent.click(screen.getByRole('button', { name: 'Choose one' }));
  const surface = screen.getByRole('group', { name: /moves by the arrows/ });
  fireEvent.keyDown(surface, { key: 'ArrowDown' });
  fireEvent.keyDown(surface, { key: 'Delete' });
  fireEvent.click(screen.getByRole('button', { name: 'Choose the next' }));
  fireEvent.click(screen.getByRole('button', { name: 'Copy' }));
  await act(async () => {});
  expect(sent).toEqual([
    { type: 'shift', marks: [mine[0]], x: 0, y: 0.01 },
    { type: 'takeOff', marks: [mine[0]] },
    { type: 'draw', stroke: { points: [0.13, 0.13, 0.33, 0.33], colour: 'tide' } },
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'Take back' }));
  await act(async () => {});
  expect(sent.at(-1)).toEqual({ type: 'takeOff', marks: [mine[1]] });
  fireEvent.click(screen.getByRole('button', { name: 'Take back' }));
  await act(async () => {});
  expect(sent.at(-1)).toEqual({ type: 'putBack', marks: [mine[0]] });
  // How the board stands is said by those who teach.
  expect(screen.queryByRole('button', { name: 'Clear the board' })).toBeNull();
});

test('those who teach turn it, rule it, clear it and put that back', async () => {
  const { tools, sent, happen } = roomTools(maren, [...CLASS, stroke]);
  showInRoom(tools, <BoardStage />);
  fireEvent.click(screen.getByRole('button', { name: 'More' }));
  fireEvent.change(screen.getByLabelText('Which side'), { target: { value: '2' } });
  fireEvent.change(screen.getByLabelText('Ground'), { target: { value: 'axes' } });
  fireEvent.click(screen.getByRole('button', { name: 'Clear the board' }));
  act(() => happen({ type: 'boardCleared', by: 'maren', ...on }));
  fireEvent.click(screen.getByRole('button', { name: 'Put back what was cleared' }));
  expect(sent).toEqual([
    { type: 'turnBoard', side: 2 },
    { type: 'layGround', ground: 'axes' },
    { type: 'clearBoard' },
    { type: 'undoClearing' },
  ]);
});

test('a board of one’s own is before one as soon as one has it, and what is shown as soon as it is', async () => {
  const { tools, sent, happen } = roomTools(ana, [...CLASS, text('For all')]);
  showInRoom(tools, <BoardStage />);
  act(() => happen({ type: 'boardsGiven', by: 'maren', given: true }));
  expect(screen.queryByText(/For all/)).toBeNull();
  const words = screen.getByLabelText('Words for the board');
  fireEvent.change(words, { target: { value: 'Mine' } });
  fireEvent.keyDown(words, { key: 'Enter' });
  await act(async () => {});
  expect(sent).toMatchObject([{ type: 'putText', at: 'own-ana', text: { text: 'Mine' } }]);
  act(() =>
    happen({
      ...{ type: 'workShown', by: 'maren', from: '', title: 'one of you', ground: 'plain', unnamed: true },
      marks: [{ kind: 'text', text: 'Theirs', at: [0.1, 0.1], colour: 'ink', seq: 3, by: '' }],
    }),
  );
  expect(await screen.findByText('What one of you made')).toBeTruthy();
  const read = () => screen.getByRole('list', { name: 'What is on the board' }).textContent;
  expect(read()).toBe('Top left: Theirs');
  fireEvent.click(screen.getByRole('button', { name: 'My own board' }));
  expect(read()).toBe('');
  fireEvent.click(screen.getByRole('button', { name: 'What is shown' }));
  expect(read()).toBe('Top left: Theirs');
});

test('those who teach see everybody’s own board, open one, and show it with the name or without', async () => {
  const own = { place: 'own-ana', side: 1 };
  const { tools, sent } = roomTools(maren, [
    ...CLASS,
    { type: 'boardsGiven', by: 'maren', given: true },
    { ...stroke, ...own } as RoomEvent,
  ]);
  showInRoom(tools, <BoardStage />);
  expect(await screen.findByText('1 of 1 have drawn something.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Show the board of Ana Lanyon without the name' }));
  fireEvent.click(screen.getByRole('button', { name: 'Open the board of Ana Lanyon' }));
  const head = screen.getByRole('group', { name: 'The board of Ana Lanyon' });
  fireEvent.click(within(head).getByRole('button', { name: 'Show to all' }));
  fireEvent.click(within(head).getByRole('button', { name: 'To all boards' }));
  expect(sent).toEqual([
    { type: 'showWork', place: 'own-ana', named: false },
    { type: 'showWork', place: 'own-ana', named: true },
  ]);
});

const full: OnBoard = {
  ground: 'squared',
  marks: [
    {
      kind: 'stroke',
      points: [0, 0, 1, 1],
      pressure: [0.2, 0.9],
      broad: true,
      colour: 'ink',
      ...on,
      seq: 1,
      by: 'ana',
    },
    { kind: 'shape', shape: 'arrow', from: [0, 0], to: [1, 1], colour: 'tide', ...on, seq: 2, by: 'ben' },
    {
      kind: 'text',
      text: 'Ebb & flow',
      at: [0.03, 0.07],
      slip: true,
      colour: 'clay',
      ...on,
      seq: 3,
      by: 'ana',
    },
  ],
};

test('a board is read a line each, and in one', () => {
  expect(boardWords(full)).toBe('Board with 1 stroke, 1 shape and 1 text');
  expect(boardLines(full, (m) => m.toUpperCase())).toEqual([
    'Top left, by ANA: Ebb & flow',
    'arrow in tide, by BEN',
    '1 stroke in ink, by ANA',
  ]);
});

test('a board is saved as a drawing with its ground, slips and figures, and as the pages of a PDF', () => {
  const svg = boardSvg(full);
  expect(svg).toMatch(/<rect x="30"[^>]*fill="#f6e7c4"/);
  expect(svg.match(/stroke="#2f6f8f"/g)).toHaveLength(1);
  expect(svg).toContain('Ebb &amp; flow');
  const pdf = new TextDecoder('latin1').decode(
    picturesPdf([new Uint8Array([255, 216, 1]), new Uint8Array([255, 216, 2, 3])], {
      width: 1600,
      height: 900,
    }),
  );
  expect(pdf).toMatch(/^%PDF-1\.4\n/);
  expect(pdf).toContain('/Count 2');
  // Each object begins where the table at the end says.
  const table = pdf.slice(pdf.lastIndexOf('\nxref\n'));
  const begins = [...table.matchAll(/^(\d{10}) 00000 n/gm)].map(([, at]) => Number(at));
  expect(begins).toHaveLength(8);
  begins.forEach((at, i) => expect(pdf.slice(at)).toMatch(new RegExp(`^${i + 1} 0 obj`)));
  expect(Number(/startxref\n(\d+)/.exec(pdf)![1])).toBe(pdf.lastIndexOf('xref\n0'));
});

test('a picture is taken from a file or pasted, said in words, and stands as large as one wants', async () => {
  const happened = [...CLASS, limit('attachFiles')];
  const { tools, sent } = roomTools(ana, happened);
  showInRoom(tools, <BoardStage />);
  const taken = { data: `data:image/jpeg;base64,${pictured.jpeg}`, width: 640, height: 480 };
  const file = new File(['x'], 'The old pier.png', { type: 'image/png' });
  jest.mocked(asJpeg).mockRejectedValueOnce(new Error('no picture'));
  const pick = () =>
    fireEvent.change(document.querySelector('input[type=file]')!, { target: { files: [file] } });
  pick();
  await waitFor(() => expect(say).toHaveBeenCalledWith(NO_PICTURE, 'fault'));
  jest.mocked(asJpeg).mockResolvedValue(taken);
  fireEvent.paste(document.body, { clipboardData: { files: [file] } });
  const words = await screen.findByLabelText('What is to be seen on it');
  expect((words as HTMLInputElement).value).toBe('The old pier');
  fireEvent.click(screen.getByRole('button', { name: 'Not after all' }));
  pick();
  fireEvent.change(await screen.findByLabelText('What is to be seen on it'), {
    target: { value: 'The pier at low water' },
  });
  fireEvent.change(screen.getByLabelText('How large'), { target: { value: 'whole' } });
  fireEvent.click(screen.getByRole('button', { name: 'Put it on' }));
  await act(async () => {});
  // As high as the board, in its middle, and of its own shape.
  const picture = { jpeg: pictured.jpeg, words: 'The pier at low water', from: [0.125, 0], to: [0.875, 1] };
  expect(sent).toEqual([{ type: 'putPicture', picture }]);
  expect(screen.queryByLabelText('How large')).toBeNull();
});

test('without leave to send files nobody is offered a picture; what is on one is read', () => {
  const put: RoomEvent = { type: 'picturePut', by: 'maren', picture: pictured, ...on };
  const { tools } = roomTools(ana, [...CLASS, limit('attachFiles', 'closed'), put]);
  showInRoom(tools, <BoardStage />);
  expect(screen.queryByRole('button', { name: 'A picture' })).toBeNull();
  expect(screen.getByRole('img', { name: /and 1 picture$/ })).toBeTruthy();
  expect(screen.getByText('Picture, by Maren Oduya: The harbour at low water')).toBeTruthy();
  expect(document.querySelector('image')?.getAttribute('href')).toContain(pictured.jpeg);
});

test('one comes closer to the board for oneself: what is drawn is where it was, and two fingers move about on it and come nearer', async () => {
  const { tools, sent } = roomTools(ana, CLASS);
  showInRoom(tools, <BoardStage />);
  expect(screen.queryByRole('button', { name: 'Further off' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Closer' }));
  fireEvent.click(screen.getByRole('button', { name: 'Closer' }));
  const around = screen.getByRole('group', { name: /^The board from nearer/ });
  expect((around.firstElementChild as HTMLElement).style.width).toBe('400%');
  expect(screen.getByRole('button', { name: 'Closer' })).toHaveProperty('disabled', true);
  // Its window is 400 px wide, so what is drawn is 1,600.
  for (const [side, size] of [
    ['clientWidth', 400],
    ['clientHeight', 225],
  ])
    Object.defineProperty(around, side!, { value: size });
  around.scrollLeft = 600;
  const board = within(around).getByRole('img', { name: /^Board with/ }).parentElement!;
  board.setPointerCapture = () => {};
  // Where a point is on the board is the browser's to say.
  Object.assign(window, {
    DOMPoint: class {
      matrixTransform = () => ({ x: 800, y: 450 });
    },
  });
  Object.assign(board.querySelector('svg')!, { getScreenCTM: () => ({ inverse: () => null }) });
  const finger = (type: string, pointerId: number, clientX: number) => {
    const event = new MouseEvent(type, { bubbles: true, clientX, clientY: 9 });
    fireEvent(board, Object.assign(event, { pointerId, pointerType: 'touch', isPrimary: pointerId === 1 }));
  };
  const sheet = around.firstElementChild as HTMLElement;
  finger('pointerdown', 1, 50);
  finger('pointerdown', 2, 90);
  finger('pointermove', 1, 30);
  finger('pointermove', 2, 70);
  // It goes with them at once, and nothing is drawn again for it.
  expect(sheet.style.transform).toBe('translate(-20px, 0px) scale(1)');
  finger('pointerup', 1, 30);
  finger('pointerup', 2, 70);
  expect([sheet.style.transform, around.scrollLeft]).toEqual(['', 620]);
  // Half as far apart: half as large, what was under them still there.
  finger('pointerdown', 1, 100);
  finger('pointerdown', 2, 180);
  finger('pointermove', 1, 120);
  finger('pointermove', 2, 160);
  finger('pointerup', 2, 160);
  finger('pointerup', 1, 120);
  await act(async () => {});
  expect([sheet.style.width, around.scrollLeft]).toEqual(['200%', (620 + 140) / 2 - 140]);
  // Neither of the two has drawn.
  expect(sent).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Further off' }));
  expect(screen.queryByRole('group', { name: /^The board from nearer/ })).toBeNull();
});

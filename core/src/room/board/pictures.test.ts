import fc from 'fast-check';
import { boardSvg, isTouched } from '../../board/index';
import { boardFilm, keptOf, maskedFor } from '../../recording/index';
import { ana, anyStep, ben, headOfJpeg, lecture, maren, pictured } from '../../testing/index';
import { onBoard, ownPlace, snapshotFor, type Actor, type RoomCommand, type StoredEvent } from '../index';
import { isPicture, jpegSize, LARGEST_SIDE } from './jpeg';
import { boardCommands } from './schema';
import { MOST_PICTURES } from './state';

const put = (words = pictured.words, at?: string) =>
  ({ type: 'putPicture', picture: { ...pictured, words }, ...(at ? { at } : {}) }) as RoomCommand;
const open = (more: object = {}) => lecture({ draw: 'open', attachFiles: 'open', ...more });
type Room = ReturnType<typeof open>;
const pictures = (room: Room, place = 'class') =>
  onBoard(room.state.board, place).marks.filter((m) => m.kind === 'picture');

test.each([
  ['a JPEG', headOfJpeg(640, 480), { width: 640, height: 480 }],
  ['a PNG that is called one', btoa('\x89PNG\r\n\x1a\n' + 'x'.repeat(40)), null],
  ['a page', btoa('<svg xmlns="http://www.w3.org/2000/svg" onload="x()"/>'), null],
  ['no base64', 'data:image/jpeg;base64,/9j/', null],
  ['one that ends before it says how large it is', headOfJpeg(640, 480).slice(0, 60), null],
  ['nothing', '', null],
])('%s is known by what it is', (_name, base64, size) => {
  expect(jpegSize(base64)).toEqual(size);
});

test('a board takes pictures of a size that can be drawn, and no text of any kind is one', () => {
  expect(isPicture(headOfJpeg(LARGEST_SIDE, 1))).toBe(true);
  expect(isPicture(headOfJpeg(LARGEST_SIDE + 1, 1))).toBe(false);
  expect(isPicture(headOfJpeg(65_535, 65_535))).toBe(false);
  expect(isPicture(headOfJpeg(0, 1))).toBe(false);
  fc.assert(fc.property(fc.base64String({ maxLength: 400 }), (text) => void jpegSize(text)));
  const said = (picture: object) => boardCommands.putPicture.safeParse({ type: 'putPicture', picture });
  expect(said(pictured).success).toBe(true);
  expect(said({ ...pictured, words: ' ' }).error?.issues[0]?.message).toBe('Say what is to be seen on it.');
  expect(said({ ...pictured, to: pictured.from }).success).toBe(false);
  expect(said({ ...pictured, from: pictured.to, to: pictured.from }).success).toBe(false);
  expect(said({ ...pictured, jpeg: btoa('<svg/>') }).success).toBe(false);
  expect(said({ ...pictured, jpeg: headOfJpeg(9, 9) + 'A'.repeat(120_000) }).success).toBe(false);
});

test('who may draw and send files puts one on; moved, taken off and copied as everything is', () => {
  const room = open();
  room.do(ana, put());
  const [mark] = pictures(room);
  expect(mark).toMatchObject({ by: 'ana', words: pictured.words });
  expect(isTouched(mark!, [0.5, 0.5])).toBe(true);
  expect(isTouched(mark!, [0.05, 0.5])).toBe(false);
  room.do(ana, { type: 'shift', marks: [mark!.seq], x: 0.5, y: 0 });
  expect(pictures(room)[0]).toMatchObject({ from: [0.6, 0.3], to: [1, 0.7] });
  room.do(ana, { type: 'takeOff', marks: [mark!.seq] });
  room.do(ana, { type: 'putBack', marks: [mark!.seq] });
  expect(pictures(room)).toHaveLength(1);
  expect(open({ attachFiles: 'closed' }).refusal(ana, put())?.code).toBe('closed');
  expect(open({ draw: 'closed' }).refusal(ana, put())?.code).toBe('closed');
  expect(open().refusal(ana, put('x', ownPlace('ben')))?.code).toBe('no-board');
});

test('a board holds a few, so that whoever comes is not kept waiting; others make room by taking one off', () => {
  const room = open();
  for (let i = 0; i < MOST_PICTURES.place; i++) room.do(ben, put(`No ${i}`));
  expect(room.refusal(ana, put())?.code).toBe('pictures-enough');
  room.do(ben, { type: 'takeOff', marks: [pictures(room)[0]!.seq] });
  expect(room.refusal(ana, put())).toBeNull();
});

test('whatever is done, those who come are never given more pictures than a board may hold and take back', () => {
  const steps = fc.array(fc.oneof(anyStep, fc.constant<[Actor, RoomCommand]>([ana, put()])), {
    maxLength: 60,
  });
  fc.assert(
    fc.property(steps, (all) => {
      const room = open();
      room.do(maren, { type: 'giveBoards', given: true });
      for (const [who, command] of all) room.do(who, command);
      const { marks, off, cleared } = room.state.board;
      const held = [...marks, ...off, ...Object.values(cleared).flat()].filter((m) => m.kind === 'picture');
      expect(off.filter((m) => m.kind === 'picture').length).toBeLessThanOrEqual(MOST_PICTURES.place);
      expect(held.length).toBeLessThanOrEqual(MOST_PICTURES.room + 2 * MOST_PICTURES.place);
    }),
    { numRuns: 60 },
  );
});

test('a picture is drawn into files and films, and is in no recording of who withholds it, nor where boards are left out', () => {
  const room = open();
  room.do(ana, put('The <harbour>'));
  room.do(ben, { type: 'draw', stroke: { points: [0.1, 0.1, 0.2, 0.2], colour: 'ink' } });
  const svg = boardSvg(onBoard(room.state.board, 'class'));
  expect(svg).toContain(`xlink:href="data:image/jpeg;base64,${pictured.jpeg}"`);
  expect(svg).toMatch(/<image x="480" y="270" width="640" height="3\d\d/);
  const told = (events: readonly StoredEvent[]) => JSON.stringify(events).includes(pictured.jpeg);
  expect(told(room.events)).toBe(true);
  expect(told(maskedFor(room.events, new Set(['ana'])))).toBe(false);
  expect(told(keptOf(room.events, ['board']))).toBe(false);
  expect(JSON.stringify(snapshotFor(room.state, ben))).toContain(pictured.jpeg);
  // Drawn anew with each mark that follows: what lies on a dark picture would not be seen under it.
  const parts = [{ from: 0, until: room.events.at(-1)!.at + 10 }];
  const film = boardFilm(room.events, parts, parts[0]!.until);
  expect(film.frames.filter((f) => f.on.marks.length).every((f) => f.added === null)).toBe(true);
});

import fc from 'fast-check';
import { keptOf } from '../../recording/leftOut';
import { forAnybody, heardBy, maskedFor } from '../../recording/withheld';
import { ana, anyStep, ben, entry, lecture, maren } from '../../testing/index';
import {
  audience,
  chapterOf,
  frontOf,
  onBoard,
  ownPlace,
  pointsOf,
  sideOf,
  sidesOf,
  snapshotFor,
  type RoomCommand,
  type StoredEvent,
  type StoredOf,
} from '../index';

type Room = ReturnType<typeof lecture>;

const OWN = ownPlace('ana');
const observer = { member: 'oli', role: 'observer' as const };
const stroke = { points: [0.1, 0.1, 0.2, 0.2], colour: 'ink' as const };
const open = () => lecture({ draw: 'open' });
const marks = (room: Room, place = 'class') => onBoard(room.state.board, place).marks;
const numbers = (room: Room, place = 'class') => marks(room, place).map((m) => m.seq);
const refused = (room: Room, actor: typeof ana, command: RoomCommand) => room.refusal(actor, command)?.code;

test('one takes off and moves what is one’s own; those who teach, anybody’s', () => {
  const room = open();
  room.do(ana, { type: 'draw', stroke });
  room.do(ben, {
    type: 'putShape',
    shape: { shape: 'arrow', from: [0.5, 0.5], to: [0.6, 0.9], colour: 'tide' },
  });
  const [hers, his] = numbers(room) as [number, number];
  room.do(ana, { type: 'shift', marks: [hers, his], x: 0.5, y: 0 });
  expect(marks(room).map((m) => pointsOf(m)[0])).toEqual([0.6, 0.5]);
  expect(refused(room, ana, { type: 'takeOff', marks: [his] })).toBe('no-mark');
  room.do(maren, { type: 'takeOff', marks: [his] });
  expect(numbers(room)).toEqual([hers]);
  // Nothing is moved off the board, and what is at its edge already stays.
  room.do(ana, { type: 'shift', marks: [hers], x: 1, y: -1 });
  expect(pointsOf(marks(room)[0]!)).toEqual([0.9, 0, 1, 0.1]);
  const before = room.events.length;
  room.do(ana, { type: 'shift', marks: [hers], x: 0.2, y: -0.2 });
  expect(room.events).toHaveLength(before);
});

test('what was taken off is put back where it was, by the hand that drew it, whoever took it off', () => {
  const room = open();
  room.do(ana, { type: 'draw', stroke });
  room.do(ben, { type: 'draw', stroke });
  const before = marks(room);
  const [hers, his] = numbers(room) as [number, number];
  room.do(maren, { type: 'takeOff', marks: [hers, his] });
  expect(numbers(room)).toEqual([]);
  expect(refused(room, ben, { type: 'putBack', marks: [hers] })).toBe('no-mark');
  room.do(ben, { type: 'putBack', marks: [hers, his] });
  room.do(maren, { type: 'putBack', marks: [hers] });
  expect(marks(room)).toEqual(before);
  // There it is no more to be put back; and of another board nothing is.
  expect(refused(room, maren, { type: 'putBack', marks: [hers] })).toBe('no-mark');
  room.do(ana, { type: 'takeOff', marks: [hers] });
  expect(refused(room, maren, { type: 'putBack', marks: [hers], at: OWN })).toBe('no-mark');
});

test('what was cleared comes back where it was, under what was drawn since', () => {
  const room = open();
  room.do(ana, { type: 'draw', stroke });
  room.do(ben, { type: 'putText', text: { text: 'Ebb', at: [0.1, 0.1], colour: 'ink' } });
  const were = numbers(room);
  room.do(maren, { type: 'clearBoard' });
  expect(numbers(room)).toEqual([]);
  room.do(ana, { type: 'draw', stroke });
  const [since] = numbers(room);
  room.do(maren, { type: 'undoClearing' });
  expect(numbers(room)).toEqual([...were, since]);
  expect(refused(room, maren, { type: 'undoClearing' })).toBe('nothing-cleared');
});

test('a board has sides, each with its own ground; clearing is of the one that is turned to everybody', () => {
  const room = open();
  room.do(ana, { type: 'draw', stroke });
  room.do(maren, { type: 'turnBoard', side: 2 });
  room.do(maren, { type: 'layGround', ground: 'squared' });
  room.do(ana, { type: 'draw', stroke });
  room.do(maren, { type: 'clearBoard' });
  const { board } = room.state;
  expect([sideOf(board, 'class'), sidesOf(board, 'class')]).toEqual([2, 2]);
  expect(onBoard(board, 'class')).toEqual({ marks: [], ground: 'squared' });
  expect(onBoard(board, 'class', 1)).toMatchObject({ marks: [{ by: 'ana', side: 1 }], ground: 'plain' });
});

test('a board of one’s own is there while they are given, whatever the limits say, and seen by those who teach alone', () => {
  const room = lecture({ draw: 'closed' });
  room.happen(entry('oli', 'Oli Trembath', 'observer'));
  const own: RoomCommand = { type: 'draw', stroke, at: OWN };
  expect(refused(room, ana, own)).toBe('no-board');
  room.do(maren, { type: 'giveBoards', given: true });
  // It is before everybody at once.
  expect(frontOf(room.state, 'class')).toBe('board');
  room.do(ana, own);
  room.do(maren, {
    type: 'putText',
    text: { text: 'Look here again', at: [0.2, 0.2], colour: 'clay' },
    at: OWN,
  });
  expect(numbers(room, OWN)).toHaveLength(2);
  for (const [actor, command] of [
    [ben, own],
    [observer, { ...own, at: ownPlace(observer.member) }],
    [ana, { ...own, at: 'class' }],
    [maren, { ...own, at: ownPlace('nobody') }],
    [ben, { type: 'takeOff', marks: numbers(room, OWN), at: OWN }],
    [ana, { type: 'takeOff', marks: [numbers(room, OWN)[1]!], at: OWN }],
  ] as const)
    expect(['no-board', 'no-mark']).toContain(refused(room, actor, command as RoomCommand));
  const drawn = room.events.find((e) => e.type === 'drawn')!;
  expect([ana, ben, maren].map((v) => audience(drawn, v, room.state) !== null)).toEqual([true, false, true]);
  expect(JSON.stringify(snapshotFor(room.state, ben))).not.toMatch(/Look here|own-ana/);
  expect(JSON.stringify(snapshotFor(room.state, ana))).toContain('Look here');
  room.do(maren, { type: 'giveBoards', given: false });
  expect(refused(room, ana, own)).toBe('no-board');
  expect(numbers(room, OWN)).toHaveLength(2);
});

test('a board of somebody’s own is shown with their name or without: without, nobody is told whose it is', () => {
  const room = open();
  room.do(maren, { type: 'giveBoards', given: true });
  room.do(ana, { type: 'draw', stroke, at: OWN });
  room.do(maren, { type: 'showWork', place: OWN, named: false });
  const shown = room.events.at(-1) as StoredOf<'workShown'>;
  const told = JSON.stringify([audience(shown, ben, room.state), snapshotFor(room.state, ben).board.shown]);
  expect(told).not.toMatch(/ana|Lanyon/i);
  expect(snapshotFor(room.state, ben).board.shown).toMatchObject({
    title: 'one of you',
    marks: [{ by: '' }],
  });
  expect(snapshotFor(room.state, maren).board.shown?.from).toBe(OWN);
  room.do(maren, { type: 'showWork', place: OWN });
  expect(snapshotFor(room.state, ben).board.shown).toMatchObject({ from: OWN, title: 'Ana Lanyon' });
  expect(chapterOf(room.events.at(-1)!, String)).toBe('What Ana Lanyon made');
  room.do(maren, { type: 'putWorkBack' });
  expect(room.state.board.shown).toBeNull();
  expect(refused(room, maren, { type: 'showWork', place: ownPlace('nobody') })).toBe('no-board');
});

test('in a recording a board of one’s own is there while it is shown, and says no more of whose it is than it may', () => {
  const room = open();
  room.do(maren, { type: 'giveBoards', given: true });
  room.do(ana, { type: 'draw', stroke, at: OWN });
  room.do(maren, { type: 'showWork', place: OWN });
  room.do(maren, { type: 'showWork', place: OWN, named: false });
  const shownIn = (events: readonly StoredEvent[]) => events.filter((e) => e.type === 'workShown');
  const named = heardBy(room.events, ben);
  expect(named.some((e) => e.type === 'drawn')).toBe(false);
  expect(shownIn(named)).toMatchObject([
    { from: OWN, title: 'Ana Lanyon' },
    { from: '', title: 'one of you', marks: [{ by: '' }] },
  ]);
  // Where names are left out it has the number of whoever drew it, and without the name not even that.
  const numbered = shownIn(keptOf(room.events, ['names'])) as StoredOf<'workShown'>[];
  expect(numbered.map((e) => e.title)).toEqual(['Student 1', 'one of you']);
  // Of whoever is in no recording there is none; nor in one for anybody.
  expect(shownIn(maskedFor(room.events, new Set(['ana'])))).toEqual([]);
  expect(shownIn(maskedFor(room.events, new Set(['ben'])))).toHaveLength(2);
  expect(shownIn(forAnybody(room.events))).toEqual([]);
});

test('whatever is drawn, moved, cleared and put back: no mark is there twice, all in their order, all on the board', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 80 }), (steps) => {
      const room = open();
      for (const [actor, command] of steps) room.do(actor, command);
      const { marks: all } = room.state.board;
      const seqs = all.map((m) => m.seq);
      expect(new Set(seqs).size).toBe(seqs.length);
      expect(seqs).toEqual([...seqs].sort((a, b) => a - b));
      for (const n of all.flatMap(pointsOf)) expect(n >= 0 && n <= 1).toBe(true);
      // Nobody has a mark of a board that they do not see.
      const { marks: seen, off, cleared } = snapshotFor(room.state, ben).board;
      for (const m of [...seen, ...off, ...Object.values(cleared).flat()]) expect(m.place).not.toBe(OWN);
    }),
  );
});

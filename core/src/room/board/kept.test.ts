import { ana, ben, lecture, maren } from '../../testing/index';
import { boardsAfter, ownPlace } from '../index';
import { OPEN_AT_TABLES } from '../../limits/index';

const stroke = { points: [0.1, 0.1, 0.2, 0.2], colour: 'ink' as const };
const draw = { type: 'draw', stroke } as const;
const none = new Set<string>();

/** A class that drew together, each for themselves, and at a table of Ben's; over. */
function over() {
  const room = lecture({ draw: 'open' });
  room.do(ana, draw);
  room.do(ben, draw);
  room.do(maren, { type: 'turnBoard', side: 2 });
  room.do(maren, draw);
  room.do(maren, { type: 'giveBoards', given: true });
  room.do(ana, { ...draw, at: ownPlace('ana') });
  room.do(ben, { ...draw, at: ownPlace('ben') });
  room.do(maren, { type: 'giveBoards', given: false });
  room.do(maren, {
    ...{ type: 'layTables', seconds: null, limits: OPEN_AT_TABLES },
    tables: [
      { name: 'Harbour', members: ['ben'] },
      { name: 'Skerries', members: ['ana'] },
    ],
  });
  for (const one of [ben, ana]) room.do(one, draw);
  room.do(maren, { type: 'dismiss' });
  return room.state;
}
const words = (boards: ReturnType<typeof boardsAfter>) =>
  boards.map((b) => `${b.title}: ${b.sides.map((s) => s.marks.length).join(' and ')}`);

test('once a class is over each has its board, those of their tables and their own; those who teach have all', () => {
  const room = over();
  expect(words(boardsAfter(room, maren, none))).toEqual([
    'The class: 2 and 1',
    'Harbour: 1',
    'Skerries: 1',
    'Ana Lanyon: 1',
    expect.stringMatching(/^Ben .*: 1$/),
  ]);
  expect(words(boardsAfter(room, ana, none))).toEqual(['The class: 2 and 1', 'Skerries: 1', 'Your own: 1']);
  const observer = { member: 'oli', role: 'observer' as const };
  expect(words(boardsAfter(room, observer, none))).toEqual(['The class: 2 and 1']);
});

test('nobody’s name is on what is kept, and what they drew who do not agree is theirs alone', () => {
  const room = over();
  const withheld = new Set(['ben']);
  expect(words(boardsAfter(room, maren, withheld))).toEqual([
    'The class: 1 and 1',
    'Skerries: 1',
    'Ana Lanyon: 1',
  ]);
  expect(words(boardsAfter(room, ben, withheld))).toEqual([
    'The class: 2 and 1',
    'Harbour: 1',
    'Your own: 1',
  ]);
  const marks = boardsAfter(room, maren, none).flatMap((b) => b.sides.flatMap((s) => s.marks));
  expect(new Set(marks.map((m) => m.by))).toEqual(new Set(['']));
});

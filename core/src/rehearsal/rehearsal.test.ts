import { entry, maren, TestRoom, courseLimits, opening, lecture } from '../testing/index';
import { snapshotFor, type RoomCommand, type RoomState, type StoredEvent } from '../room/index';
import { inventedName, Mind, MOST_STAND_INS, PROMPTS, standInClass, triedIn, type Prompt } from './index';
import { OPEN_AT_TABLES } from '../limits/index';

const S = 1000;
interface Taken {
  room: TestRoom;
  refused: { member: string; command: RoomCommand }[];
  accepted: { member: string; command: RoomCommand }[];
  drops: number;
}

/** A class of so many in a room that is rung in, for so many seconds; what is done at some of them. */
function held(
  size: number,
  seconds: number,
  { limits = {}, at = {} as Record<number, (room: TestRoom, minds: Mind[]) => void>, seed = 7 } = {},
): Taken {
  const room = new TestRoom();
  room.happen(opening([courseLimits(limits)]), entry('maren', 'Maren Oduya', 'teacher'));
  room.do(maren, { type: 'ringIn' });
  const standIns = standInClass(seed, size);
  const minds = standIns.map((self, i) => new Mind(self, seed + i));
  for (const [i, { name, role }] of standIns.entries()) room.happen(entry(`s${i}`, name, role));
  const taken: Taken = { room, refused: [], accepted: [], drops: 0 };
  for (let second = 0; second < seconds; second++) {
    room.later += S;
    at[second]?.(room, minds);
    for (const [i, mind] of minds.entries()) {
      const me = { member: `s${i}`, role: standIns[i]!.role };
      // They see what a student's page sees.
      const sight = snapshotFor(room.state, me) as RoomState;
      for (const act of mind.beat({ room: sight, me, now: room.now })) {
        if (act.do === 'drop') taken.drops++;
        else {
          const refusal = room.refusal(me, act.command);
          if (!refusal) room.do(me, act.command);
          taken[refusal ? 'refused' : 'accepted'].push({ member: me.member, command: act.command });
        }
      }
    }
  }
  return taken;
}
const kinds = (done: Taken['accepted']) => new Set(done.map((d) => d.command.type));

test('a class is made again from its seed, of the size that is asked for, in its groups', () => {
  for (const size of [1, 2, 5, 34, MOST_STAND_INS]) {
    const made = standInClass(3, size, ['East', 'West']);
    expect(made).toHaveLength(size);
    expect(made).toEqual(standInClass(3, size, ['East', 'West']));
    expect(new Set(made.map((s) => s.name)).size).toBe(size);
  }
  expect(standInClass(4, 34)).not.toEqual(standInClass(3, 34));
  const made = standInClass(3, 34, ['East', 'West']);
  expect(made.filter((s) => s.group === 'East')).toHaveLength(17);
  expect(made.filter((s) => s.role === 'guest')).toHaveLength(1);
  expect(made.some((s) => s.comesAt > 60 * S)).toBe(true);
  // Nobody of the demo's classes.
  const demo = new Set(Array.from({ length: 140 }, (_, i) => inventedName(i)));
  expect(made.some((s) => demo.has(s.name))).toBe(false);
});

test('they write, raise hands and give signs; what is closed is tried by those alone whose way it is', () => {
  const { refused, accepted, drops } = held(20, 300, { limits: { speak: 'closed', draw: 'closed' } });
  expect(kinds(accepted)).toEqual(new Set(['say', 'raiseHand', 'giveSign', 'lowerHand', 'camera']));
  expect(refused.length).toBeGreaterThan(0);
  const tries = standInClass(7, 20).flatMap(({ temper }, i) => (temper.tries ? [`s${i}`] : []));
  for (const { member } of refused) expect(tries).toContain(member);
  expect(drops).toBeGreaterThan(0);
});

test('the same seed does the same in the same room', () => {
  const commands = () => held(10, 120).accepted;
  expect(commands()).toEqual(commands());
});

test('every question of every kind is answered by nearly all within its time, in answers that fit', () => {
  const asks = (kind: 'yesNo' | 'trueFalse' | 'one' | 'several' | 'number' | 'words' | 'order') => {
    const options = ['one', 'several', 'order'].includes(kind) ? ['East', 'West', 'North'] : [];
    const ask = (room: TestRoom) =>
      room.do(maren, {
        type: 'ask',
        question: { text: 'Which way?', kind, options, right: null, anonymous: false },
      });
    return held(15, 25, { at: { 1: ask } });
  };
  for (const kind of ['yesNo', 'trueFalse', 'one', 'several', 'number', 'words', 'order'] as const) {
    const { accepted, refused } = asks(kind);
    const answered = accepted.filter((d) => d.command.type === 'answer');
    expect(answered).toHaveLength(15);
    expect(refused.filter((d) => d.command.type === 'answer')).toEqual([]);
    expect(new Set(answered.map((d) => JSON.stringify(d.command))).size).toBeGreaterThan(1);
  }
});

test('who is given the floor speaks, and is silent again', () => {
  const { accepted } = held(3, 40, {
    at: { 2: (room) => void room.do(maren, { type: 'giveFloor', member: 's1' }) },
  });
  const switches = accepted.flatMap(({ member, command }) =>
    command.type === 'microphone' ? [[member, command.on]] : [],
  );
  expect(switches.slice(0, 2)).toEqual([
    ['s1', true],
    ['s1', false],
  ]);
});

test('they draw on a board that is before them where they may, and each on one of their own, and then have done', () => {
  const strokes = ({ accepted }: Taken) =>
    accepted.flatMap(({ member, command }) => (command.type === 'draw' ? [{ member, at: command.at }] : []));
  const before = { 1: (r: TestRoom) => void r.do(maren, { type: 'setFront', tool: 'board' }) };
  const together = held(12, 120, { limits: { draw: 'open' }, at: before });
  expect(strokes(together).length).toBeGreaterThan(10);
  expect(strokes(together).length).toBeLessThanOrEqual(36);
  expect(strokes(held(12, 60, { limits: { draw: 'open' } }))).toEqual([]);
  const apart = held(8, 100, {
    limits: { draw: 'closed' },
    at: { 1: (r) => void r.do(maren, { type: 'giveBoards', given: true }) },
  });
  const own = strokes(apart);
  for (const { member, at } of own) expect(at).toBe(`own-${member}`);
  expect(new Set(own.map((d) => d.member)).size).toBe(8);
  expect(own).toHaveLength(24);
});

test('where everybody chooses, each goes to a table', () => {
  const { room } = held(12, 20, {
    at: {
      1: (r) =>
        void r.do(maren, {
          type: 'layTables',
          tables: ['One', 'Two'].map((name) => ({ name, members: [] })),
          seconds: null,
          limits: OPEN_AT_TABLES,
          choose: true,
        }),
    },
  });
  expect(room.state.tables.laid!.tables.flatMap((t) => t.members)).toHaveLength(12);
});

test.each(PROMPTS)('what is let happen happens: %s', (what: Prompt) => {
  const prompt = (_: TestRoom, minds: Mind[]) => minds.forEach((mind) => mind.prompt(what));
  const { accepted, refused, drops } = held(20, 6, {
    limits: { speak: 'closed', camera: 'closed', draw: 'closed' },
    at: { 5: prompt },
  });
  const before = held(20, 5, { limits: { speak: 'closed', camera: 'closed', draw: 'closed' } });
  const more = {
    hands: accepted.filter((d) => d.command.type === 'raiseHand').length,
    chatter: accepted.filter((d) => d.command.type === 'say').length,
    signs: accepted.filter((d) => d.command.type === 'giveSign').length,
    unruly: refused.length,
    lines: drops,
  }[what];
  const was = {
    hands: before.accepted.filter((d) => d.command.type === 'raiseHand').length,
    chatter: before.accepted.filter((d) => d.command.type === 'say').length,
    signs: before.accepted.filter((d) => d.command.type === 'giveSign').length,
    unruly: before.refused.length,
    lines: before.drops,
  }[what];
  expect(more - was).toBeGreaterThan(5);
});

test('what was tried is what those who teach did themselves', () => {
  const room = lecture();
  const roleOf = (member: string) => room.state.presence.people[member]?.role ?? null;
  const tried = (segments = 3) =>
    triedIn(room.events as StoredEvent[], { roleOf, segments })
      .filter((t) => t.done)
      .map((t) => t.id);
  expect(tried()).toEqual(['ringIn']);
  room.do(maren, { type: 'hush' });
  room.happen({
    type: 'drawn',
    by: 'ana',
    stroke: { points: [0, 0], colour: 'ink' },
    place: 'class',
    side: 1,
  });
  expect(tried()).toEqual(['ringIn', 'hush']);
  room.happen({ type: 'presenting', member: 'maren', on: true, place: 'class' });
  // Ring-in cues the first segment by itself.
  const segment = { title: 'Lecture', minutes: 40, limits: {} };
  room.happen({ type: 'cued', by: 'maren', index: 0, segment, changes: {} } as never);
  expect(tried()).toEqual(['ringIn', 'show', 'hush']);
  expect(triedIn([], { roleOf, segments: 0 }).map((t) => t.id)).not.toContain('cue');
  room.do(maren, { type: 'dismiss' });
  expect(tried()).toEqual(['ringIn', 'show', 'hush', 'dismiss']);
});

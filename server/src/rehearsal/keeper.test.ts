import { fork } from 'node:child_process';
import { EventEmitter } from 'node:events';
import type { Context } from '../context';
import { Elsewhere } from '../room/lease';
import type { Rooms } from '../room/rooms';
import { LONGEST_MS, Rehearsals } from './keeper';
import type { Rehearsal } from './store';

const HOUR_MS = 3_600_000;
const rehearsal = (session: string, more: Partial<Rehearsal> = {}): Rehearsal => ({
  ...{ session, course: `course of ${session}`, of: 'lecture', seed: 7, size: 5, begunAt: 0 },
  ...{ ofCourse: 'course', person: 'maren' },
  ...{ over: false, held: false },
  ...more,
});

let all: Rehearsal[];
const deleted: string[] = [];
jest.mock('./store', () => ({
  rehearsals: async () => all,
  linksOf: async () => new Map([0, 1, 2, 3, 4].map((nr) => [nr, `link ${nr}`])),
  deleteRehearsal: async (_db: unknown, { session }: Rehearsal) => {
    deleted.push(session);
    all = all.filter((r) => r.session !== session);
  },
}));
jest.mock('./begin', () => ({ groupsFor: async () => [] }));
jest.mock('../courses/store', () => ({ sessionById: async () => null }));
jest.mock('../db/pool', () => ({
  ...jest.requireActual<object>('../db/pool'),
  transaction: (_db: unknown, work: (tx: object) => unknown) => work({}),
}));
jest.mock('node:child_process', () => ({
  ...jest.requireActual<object>('node:child_process'),
  fork: jest.fn(),
}));

class Class extends EventEmitter {
  readonly told: { do: string; standIns?: unknown[] }[] = [];
  readonly send = (message: Class['told'][number]) => this.told.push(message);
  readonly kill = jest.fn();
}

/** Where each room is: here in a phase, nowhere yet, or with another server. */
let phases: Record<string, 'live' | 'waiting' | 'dismissed' | 'elsewhere' | 'broken'>;
const dismissed: string[] = [];
const rooms = {
  held: async (id: string) => {
    if (phases[id] === 'broken') throw new Error('no answer');
    if (!phases[id] || phases[id] === 'elsewhere') return null;
    return { state: { bell: { phase: phases[id] } } };
  },
  room: async (id: string) => {
    if (phases[id] === 'elsewhere') throw new Elsewhere(null);
    return {
      happen: async (decide: (state: object) => { type: string }[]) => {
        for (const { type } of decide({ bell: { phase: phases[id] } })) dismissed.push(`${id}: ${type}`);
      },
    };
  },
  forget: () => {},
} as unknown as Rooms;

let now: number;
let warned: number;
let classes: Class[];
let keeper: Rehearsals;

beforeEach(() => {
  now = 60_000;
  warned = 0;
  all = [rehearsal('one')];
  phases = { one: 'live' };
  classes = [];
  deleted.length = dismissed.length = 0;
  jest.mocked(fork).mockImplementation(() => {
    const made = new Class();
    classes.push(made);
    return made as never;
  });
  const ctx = { db: {}, now: () => now, log: { warn: () => warned++ } } as unknown as Context;
  keeper = new Rehearsals(ctx, rooms, 'http://here');
});

test('a class runs once where its room is held, is made of everybody, says how it goes, and is prompted', async () => {
  await keeper.look();
  await keeper.look();
  expect(classes).toHaveLength(1);
  expect(classes[0]!.told).toMatchObject([
    { do: 'begin', url: 'http://here', session: 'one', since: 60_000 },
  ]);
  expect(classes[0]!.told[0]!.standIns).toHaveLength(5);
  classes[0]!.emit('message', { refused: 3 });
  expect(keeper.says('one')).toEqual({ refused: 3 });
  expect(keeper.prompt('one', 'hands' as never)).toBe(true);
  expect(classes[0]!.told.at(-1)).toMatchObject({ do: 'prompt', what: 'hands' });
  expect([keeper.says('two'), keeper.prompt('two', 'hands' as never)]).toEqual([null, false]);
});

test('a class that fails is begun anew at the next look; an older one’s end is not its successor’s', async () => {
  await keeper.look();
  classes[0]!.emit('exit', 1);
  await keeper.look();
  expect(classes).toHaveLength(2);
  classes[0]!.emit('exit', 1);
  await keeper.look();
  expect(classes).toHaveLength(2);
});

test('it ends when it is dismissed, when another server has its room, and when it is known no more', async () => {
  for (const end of [() => (phases.one = 'dismissed'), () => (phases.one = 'elsewhere'), () => (all = [])]) {
    phases.one = 'live';
    all = [rehearsal('one')];
    await keeper.look();
    const running = classes.at(-1)!;
    end();
    await keeper.look();
    expect(running.kill).toHaveBeenCalledTimes(1);
    expect(keeper.says('one')).toBeNull();
  }
  expect(deleted).toEqual([]);
});

test('one that is over is dismissed where it was on, and thrown away; another server’s is left to that', async () => {
  all = [
    rehearsal('one', { over: true }),
    rehearsal('two', { over: true }),
    rehearsal('three', { over: true }),
  ];
  phases = { one: 'live', two: 'elsewhere', three: 'waiting' };
  await keeper.look();
  expect(dismissed).toEqual(['one: dismissed']);
  expect(deleted).toEqual(['one', 'three']);
});

test('what nobody ended is thrown away by itself: after six hours, and ten minutes after it was dismissed', async () => {
  all = [rehearsal('one'), rehearsal('two', { begunAt: 5 * HOUR_MS, held: true })];
  phases = { one: 'live', two: 'dismissed' };
  now = LONGEST_MS;
  await keeper.look();
  expect(deleted).toEqual([]);
  now += 1;
  await keeper.look();
  expect(deleted).toEqual(['one']);
  now = LONGEST_MS + 10 * 60_000;
  await keeper.look();
  expect(deleted).toEqual(['one']);
  now += 1;
  await keeper.look();
  expect(deleted).toEqual(['one', 'two']);
});

test('one in trouble holds up no other', async () => {
  all = [rehearsal('one'), rehearsal('two')];
  phases = { one: 'broken', two: 'live' };
  await keeper.look();
  expect([warned, classes.length, keeper.says('two')]).toEqual([1, 1, { refused: 0 }]);
  keeper.stop();
  expect(classes[0]!.kill).toHaveBeenCalledTimes(1);
});

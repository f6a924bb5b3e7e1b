import type { StoredEvent } from '@nimble-bell/core/api';
import type { Actor } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { Room } from './room';

const rows: { event: StoredEvent; command: string | null }[] = [];
let failing = false;

jest.mock('./store', () => ({
  eventsOf: async () => rows.map((r) => r.event),
  seqOfCommand: async (_db: unknown, _session: string, id: string) => {
    const found = rows.find((r) => r.command === id);
    return found ? { seq: found.event.seq } : null;
  },
  storeEvents: async (_db: unknown, _session: string, events: StoredEvent[], command: string | null) => {
    await new Promise((resolve) => setTimeout(resolve, Math.random() * 3));
    if (failing) throw new Error('The database is away.');
    for (const [i, event] of events.entries()) {
      if (rows.some((r) => r.event.seq === event.seq)) throw new Error(`Two events are number ${event.seq}.`);
      rows.push({ event, command: i === events.length - 1 ? command : null });
    }
  },
}));

const maren: Actor = { member: 'maren', role: 'teacher' };
const ana: Actor = { member: 'ana', role: 'student' };
const ctx = { now: () => 1000 } as Context;

async function open(told: StoredEvent[] = []) {
  const room = new Room(ctx, 'session', [], (_room, events) => void told.push(...events));
  await room.load();
  return room;
}

async function live(told: StoredEvent[] = []) {
  const room = await open(told);
  await room.happen(() => [
    { type: 'entered', member: 'maren', name: 'Maren Oduya', role: 'teacher' },
    { type: 'entered', member: 'ana', name: 'Ana Lanyon', role: 'student' },
  ]);
  await room.command(maren, { type: 'ringIn' }, 'ring');
  return room;
}

beforeEach(() => {
  rows.length = 0;
  failing = false;
});

test('commands that come together are numbered one after another, stored before they are told', async () => {
  const told: StoredEvent[] = [];
  const room = await live(told);
  const say = (i: number) =>
    room.command(
      i % 2 ? ana : maren,
      { type: 'say', addressee: { to: 'class' }, text: `word ${i}` },
      `say ${i}`,
    );
  const replies = await Promise.all(Array.from({ length: 60 }, (_, i) => say(i)));
  expect(replies.every((r) => r.ok)).toBe(true);
  expect(rows.map((r) => r.event.seq)).toEqual(Array.from({ length: 63 }, (_, i) => i + 1));
  expect(told).toEqual(rows.map((r) => r.event));
  expect(room.state.talk.map((m) => m.text)).toEqual(Array.from({ length: 60 }, (_, i) => `word ${i}`));
});

test('a command that is sent again is done once and answered as before, also by a room read anew', async () => {
  const room = await live();
  const raise = () => room.command(ana, { type: 'raiseHand' }, 'raise');
  const [first, again] = [await raise(), await raise()];
  expect(again).toEqual(first);
  const read = await open();
  expect(await read.command(ana, { type: 'raiseHand' }, 'raise')).toEqual(first);
  expect(rows.filter((r) => r.event.type === 'handRaised')).toHaveLength(1);
});

test('a room read anew is the room that was', async () => {
  const room = await live();
  await room.command(maren, { type: 'setLimit', capability: 'speak', state: 'open' }, 'a');
  await room.command(ana, { type: 'microphone', on: true }, 'b');
  await room.command(maren, { type: 'hush' }, 'c');
  expect((await open()).state).toEqual(room.state);
});

test('what could not be stored did not happen, and the next command is taken', async () => {
  const told: StoredEvent[] = [];
  const room = await live(told);
  const before = room.state;
  failing = true;
  await expect(room.command(ana, { type: 'raiseHand' }, 'lost')).rejects.toThrow('The database is away.');
  expect(room.state).toBe(before);
  failing = false;
  expect(await room.command(ana, { type: 'raiseHand' }, 'lost')).toMatchObject({ ok: true });
  expect(room.state.hands).toHaveLength(1);
  expect(told.at(-1)?.type).toBe('handRaised');
});

test('a refusal stores and tells nothing', async () => {
  const told: StoredEvent[] = [];
  const room = await live(told);
  const count = rows.length;
  expect(await room.command(ana, { type: 'dismiss' }, 'x')).toMatchObject({
    ok: false,
    refusal: { code: 'teachers-only' },
  });
  expect(rows).toHaveLength(count);
  expect(told).toHaveLength(count);
});

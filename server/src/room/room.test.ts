import fc from 'fast-check';
import { evolve, newRoom, type Consequence, type StoredEvent } from '@nimble-bell/core/room';
import { ana, anyStep, courseLimits, entry, maren, opening } from '@nimble-bell/core/testing';
import type { Context } from '../context';
import { Room } from './room';
import { LeaseLost, type EventRow, type Lease } from './store';

/** What the next write does: as it should; nothing, with an error; or all of it, with the answer lost. */
type Fate = 'written' | 'refused' | 'answer lost';

/** The rows of one room, as the database keeps them, with whatever can befall a write. */
const store = {
  rows: [] as EventRow[],
  consequences: [] as Consequence[],
  epoch: 1,
  fates: [] as Fate[],
  away: false,
};

jest.mock('./store', () => {
  class Lost extends Error {}
  return {
    LeaseLost: Lost,
    eventRowsAfter: async (_db: unknown, _session: string, seq: number) => {
      if (store.away) throw new Error('The database is away.');
      return store.rows.filter((r) => r.event.seq > seq);
    },
    storeEvents: async (
      _db: unknown,
      lease: Lease,
      rows: readonly EventRow[],
      consequences: Consequence[],
    ) => {
      await null;
      const fate = store.away ? 'refused' : (store.fates.shift() ?? 'written');
      if (fate === 'refused') throw new Error('The database is away.');
      if (lease.epoch !== store.epoch) throw new Lost();
      for (const row of rows) {
        if (row.event.seq !== store.rows.length + 1)
          throw new Error(`Event ${row.event.seq} after ${store.rows.length}.`);
        if (row.command && store.rows.some((r) => r.command === row.command))
          throw new Error(`Command ${row.command} twice.`);
        store.rows.push(row);
      }
      store.consequences.push(...consequences);
      if (fate === 'answer lost') throw new Error('The connection was lost.');
    },
  };
});

let now = 1000;
const ctx = { now: () => ++now, log: { warn: () => {}, error: () => {} } } as unknown as Context;
/** Long beside what a busy machine stands still for. */
const PATIENCE = { pausesMs: [0], untilMs: 1500 };

interface Heard {
  told: StoredEvent[];
  lost: number;
}
async function open(heard: Heard = { told: [], lost: 0 }) {
  const listener = {
    told: (_room: Room, events: readonly StoredEvent[]) => void heard.told.push(...events),
    lost: () => void heard.lost++,
  };
  const room = new Room(ctx, { session: 's', owner: 'o', epoch: store.epoch }, listener, PATIENCE);
  await room.load();
  return room;
}
async function live(heard?: Heard) {
  const room = await open(heard);
  await room.happen(() => [
    opening([courseLimits({ speak: 'open', writeToClass: 'open', draw: 'open' })]),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana'),
    entry('ben'),
  ]);
  await room.command(maren, { type: 'ringIn' }, 'ring');
  return room;
}
const replayed = () => store.rows.map((r) => r.event).reduce(evolve, newRoom());
const say = (text: string) => ({ type: 'say' as const, addressee: { to: 'class' as const }, text });

beforeEach(() => Object.assign(store, { rows: [], consequences: [], epoch: 1, fates: [], away: false }));

test('commands that come together are numbered one after another, stored before they are told', async () => {
  const heard: Heard = { told: [], lost: 0 };
  const room = await live(heard);
  const replies = await Promise.all(
    Array.from({ length: 60 }, (_, i) => room.command(i % 2 ? ana : maren, say(`word ${i}`), `say ${i}`)),
  );
  expect(replies.map((r) => r.ok && r.seq)).toEqual(Array.from({ length: 60 }, (_, i) => i + 6));
  expect(heard.told).toEqual(store.rows.map((r) => r.event));
  expect(room.state.talk.messages.map((m) => m.text)).toEqual(
    Array.from({ length: 60 }, (_, i) => `word ${i}`),
  );
});

test('a command that is sent again is done once and answered as before, also by a room read anew', async () => {
  const room = await live();
  const raise = (r: Room) => r.command(ana, { type: 'raiseHand' }, 'raise');
  const [first, again] = await Promise.all([raise(room), raise(room)]);
  expect(again).toEqual(first);
  expect(await raise(await open())).toEqual(first);
  expect(store.rows.filter((r) => r.event.type === 'handRaised')).toHaveLength(1);
});

test('a write whose answer was lost is found: answered, told once, and the room goes on', async () => {
  const heard: Heard = { told: [], lost: 0 };
  const room = await live(heard);
  store.fates = ['answer lost'];
  const reply = await room.command(ana, say('Is it springs?'), 'lost');
  expect(reply).toEqual({ ok: true, seq: store.rows.length });
  expect(await room.command(ana, say('Or neaps?'), 'next')).toMatchObject({ ok: true });
  expect(heard.told).toEqual(store.rows.map((r) => r.event));
  expect(room.state).toEqual(replayed());
});

test('a write that failed is tried again; where that takes too long it is said, and the next command is taken', async () => {
  const room = await live();
  store.fates = ['refused', 'refused'];
  expect(await room.command(ana, say('a'), 'a')).toMatchObject({ ok: true });
  store.away = true;
  expect(await room.command(ana, say('b'), 'b')).toMatchObject({ ok: false, refusal: { code: 'away' } });
  store.away = false;
  expect(await room.command(ana, say('c'), 'c')).toMatchObject({ ok: true });
  expect(room.state.talk.messages.map((m) => m.text)).toEqual(['a', 'c']);
});

test('a room that another server has taken decides nothing more, and says so once', async () => {
  const heard: Heard = { told: [], lost: 0 };
  const room = await live(heard);
  store.epoch = 2;
  const count = store.rows.length;
  const replies = await Promise.all([room.command(ana, say('a'), 'a'), room.command(ana, say('b'), 'b')]);
  for (const reply of replies) expect(reply).toMatchObject({ ok: false, refusal: { code: 'elsewhere' } });
  expect(await room.command(maren, { type: 'dismiss' }, 'c')).toMatchObject({ ok: false });
  expect([store.rows.length, heard.lost]).toEqual([count, 1]);
  expect(new LeaseLost()).toBeInstanceOf(Error);
});

test('a refusal stores and tells nothing, and neither does a command that changes nothing', async () => {
  const heard: Heard = { told: [], lost: 0 };
  const room = await live(heard);
  const count = store.rows.length;
  expect(await room.command(ana, { type: 'dismiss' }, 'x')).toMatchObject({
    ok: false,
    refusal: { code: 'teachers-only' },
  });
  for (let i = 0; i < 3000; i++) await room.command(ana, { type: 'microphone', on: false }, `off ${i}`);
  expect([store.rows.length, heard.told.length]).toEqual([count, count]);
});

test('what must follow an event is handed over with it', async () => {
  const room = await live();
  await room.command(maren, { type: 'dismiss' }, 'end');
  expect(store.consequences.map((c) => c.do)).toEqual([
    'beginSession',
    'closeParts',
    'endSession',
    'prepareRecording',
  ]);
});

test('pages that missed little are given it, others the room as it is', async () => {
  const room = await live();
  const seq = room.state.seq;
  await room.command(ana, { type: 'raiseHand' }, 'hand');
  expect(room.since(seq)?.map((e) => e.type)).toEqual(['handRaised']);
  expect(room.since(room.state.seq)).toEqual([]);
  expect(room.since(0)).toBeNull();
});

const anyBlow = fc.constantFrom(
  'written',
  'written',
  'refused',
  'answer lost',
  'killed',
  'taken over' as const,
);

test('whatever is killed when: pages end with the stored room, and no acknowledged command is missing or doubled', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(anyStep, anyBlow), { maxLength: 25 }), async (steps) => {
      Object.assign(store, { rows: [], consequences: [], epoch: 1, fates: [], away: false });
      const heard: Heard = { told: [], lost: 0 };
      let room = await live(heard);
      const acknowledged: string[] = [];
      const pending: Promise<void>[] = [];
      for (const [i, [[actor, command], blow]] of steps.entries()) {
        if (blow === 'killed' || blow === 'taken over') {
          // The old process stops hearing of anything at once, or goes on for a while without the room.
          if (blow === 'killed') room.close();
          store.epoch++;
          room = await open(heard);
          heard.told = store.rows.map((r) => r.event);
        } else store.fates.push(blow as Fate);
        const asked = room;
        const id = `command ${i}`;
        pending.push(
          asked.command(actor, command, id).then(async (reply) => {
            // A page whose command was not answered sends it again where the room is now.
            if (!reply.ok && reply.refusal.code === 'elsewhere')
              reply = await room.command(actor, command, id);
            if (reply.ok) acknowledged.push(id);
          }),
        );
        if (i % 3 === 0) await Promise.all(pending);
      }
      store.fates = [];
      await Promise.all(pending);
      await room.command(ana, say('the last word'), 'last');
      expect(room.state).toEqual(replayed());
      const told = [...new Map(heard.told.map((e) => [e.seq, e])).values()].sort((a, b) => a.seq - b.seq);
      expect(told).toEqual(store.rows.map((r) => r.event));
      const ids = store.rows.flatMap((r) => r.command ?? []);
      expect(new Set(ids).size).toBe(ids.length);
      // An acknowledged command is stored, unless it changed nothing.
      for (const id of acknowledged) {
        const [[actor, command]] = steps[Number(id.split(' ')[1])]!;
        if (command.type === 'say' && actor.member !== 'nobody') expect(ids).toContain(id);
      }
    }),
    { numRuns: 1000 },
  );
}, 60_000);

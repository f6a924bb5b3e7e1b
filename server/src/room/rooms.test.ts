import type { RoomEvent, StoredEvent } from '@nimble-bell/core/room';
import { courseLimits, entry, LECTURE, maren } from '@nimble-bell/core/testing';
import { noSettings, withValues } from '@nimble-bell/core/settings';
import type { Context } from '../context';
import type { ExceptionRow } from '../rules/store';
import type { Leases } from './lease';
import { Elsewhere } from './lease';
import { heedOutside } from './outside';
import type { Room } from './room';
import { Rooms } from './rooms';
import type { EventRow } from './store';

const stored = new Map<string, EventRow[]>();
let live: { session: string; owner: string | null }[] = [];
let session: object | null = null;
let exceptions: ExceptionRow[] = [];

jest.mock('./store', () => ({
  LeaseLost: class extends Error {},
  eventRowsAfter: async (_db: unknown, id: string, seq: number) =>
    (stored.get(id) ?? []).filter((r) => r.event.seq > seq),
  storeEvents: async (_db: unknown, lease: { session: string }, rows: EventRow[]) =>
    void stored.set(lease.session, [...(stored.get(lease.session) ?? []), ...rows]),
  liveRooms: async () => live,
}));
jest.mock('../courses/store', () => ({ sessionById: async () => session }));
jest.mock('../after/store', () => ({ askedByLot: async () => ({ ana: 2 }) }));
jest.mock('../rules/store', () => ({ exceptionsOf: async () => exceptions }));

const NOW = 1_000_000;
const ctx = {
  now: () => NOW,
  log: { warn: () => {}, error: (...said: unknown[]) => fail(said) },
} as unknown as Context;
const fail = (said: unknown[]) => {
  throw new Error(said.map(String).join(' '));
};
/** Leases of a server that gets what it asks for, but for rooms that are held elsewhere. */
const leasesWith = (elsewhere: Set<string>, silentSince: number | null = null) =>
  ({
    take: async (id: string) => {
      if (elsewhere.has(id)) throw new Elsewhere('127.0.0.1:9');
      return { lease: { session: id, owner: 'me', epoch: 1 }, silentSince };
    },
  }) as unknown as Leases;

const planned = (limits = {}) => ({
  id: 's',
  kind: 'class',
  ...LECTURE,
  layers: [courseLimits(limits), { name: 'series', settings: courseLimits({}).settings }],
});
const typesOf = (id = 's') => (stored.get(id) ?? []).map((r) => r.event.type);
const stand = (...events: RoomEvent[]) =>
  stored.set(
    's',
    events.map((event, i) => ({ event: { ...event, seq: i + 1, at: 5000 } as StoredEvent, command: null })),
  );

let all: Rooms[] = [];
const rooms = (leases = leasesWith(new Set())) => {
  const made = new Rooms(ctx, leases);
  all.push(made);
  return made;
};
beforeEach(() => {
  stored.clear();
  live = [];
  exceptions = [];
  session = planned();
});
afterEach(() => {
  for (const r of all) r.stop();
  all = [];
});

test('the first event of a room holds what it began with', async () => {
  session = planned({ speak: 'open' });
  const room = await rooms().room('s');
  expect(typesOf()).toEqual(['opened']);
  expect(room.state.limits.layers[0]!.settings.limits.speak).toMatchObject({ value: 'open', by: 'maren' });
  // And how often each was asked by lot before.
  expect(room.state.pick.asked).toEqual({ ana: 2 });
});

test('those who ask for a room at once get the same one', async () => {
  const one = rooms();
  const [a, b] = await Promise.all([one.room('s'), one.room('s')]);
  expect(a).toBe(b);
  expect(typesOf()).toEqual(['opened']);
});

test('a class that was on when its server died goes on, with since when the server was away', async () => {
  await rooms().room('s');
  const [opened] = stored.get('s')!.map((r) => r.event);
  stand(opened!, entry('maren', 'Maren Oduya', 'teacher'), { type: 'rangIn', by: 'maren' });
  const room = await rooms(leasesWith(new Set(), 9000)).room('s');
  expect(stored.get('s')!.at(-1)!.event).toMatchObject({ type: 'interrupted', from: 9000 });
  expect(room.state.presence.people.maren!.present).toBe(true);
  stand(opened!, entry('maren', 'Maren Oduya', 'teacher'), { type: 'rangIn', by: 'maren' });
  await rooms().room('s');
  // Where nobody knows when it was seen last, it was when something happened there last.
  expect(stored.get('s')!.at(-1)!.event).toMatchObject({ type: 'interrupted', from: 5000 });
});

test('whoever stood in a room before its class, and is not connected, has left it', async () => {
  await rooms().room('s');
  const [opened] = stored.get('s')!.map((r) => r.event);
  stand(opened!, entry('ana'));
  await rooms().room('s');
  expect(typesOf().at(-1)).toBe('left');
});

test('a room that another server holds is refused, and taken when that server is dead', async () => {
  const held = new Set(['s']);
  const one = rooms(leasesWith(held));
  live = [{ session: 's', owner: 'other' }];
  await one.start();
  expect(await one.held('s')).toBeNull();
  await expect(one.room('s')).rejects.toBeInstanceOf(Elsewhere);
  held.clear();
  await new Promise((resolve) => setTimeout(resolve, 1200));
  expect(await one.held('s')).not.toBeNull();
});

test("what is saved outside reaches an open room once, with who saved it; the session's new times too", async () => {
  const room = await rooms().room('s');
  session = { ...planned({ draw: 'open' }), endsAt: LECTURE.endsAt + 60_000 };
  await heedOutside(ctx, room);
  await heedOutside(ctx, room);
  expect(typesOf()).toEqual(['opened', 'settingsChanged', 'replanned']);
  expect(stored.get('s')![1]!.event).toMatchObject({ by: 'maren', layer: 'course' });
});

test('of a run sheet no note reaches the room, and of an exception no reason; nothing is told twice', async () => {
  const segment = {
    ...{ title: 'Lecture', minutes: 40, sheet: null, limits: {}, recording: null },
    note: 'Ask the back row',
  };
  const settings = withValues(noSettings(), 'runSheet', { segments: [segment] }, 'maren', 1);
  session = { ...planned(), layers: [{ name: 'session', settings }] };
  const room = await rooms().room('s');
  const own = { id: 'e', member: 'ana', capability: 'present', state: 'open', until: NOW + 1000 };
  exceptions = [{ ...own, by: 'maren', at: 1, reason: 'Agreed at home' } as ExceptionRow];
  await heedOutside(ctx, room);
  await heedOutside(ctx, room);
  expect(typesOf()).toEqual(['opened', 'excepted']);
  const told = JSON.stringify([...stored.values()]);
  expect(told).toContain('Lecture');
  expect(told).not.toMatch(/Ask the back row|Agreed at home/);
  exceptions = [];
  await heedOutside(ctx, room);
  expect(typesOf().at(-1)).toBe('exceptionEnded');
});

test('a room whose session was planned away is given up', async () => {
  const one = rooms();
  const lost: Room[] = [];
  one.listen({ lost: (room) => lost.push(room) });
  const room = await one.room('s');
  session = null;
  await heedOutside(ctx, room);
  expect(lost).toEqual([room]);
  expect(await room.command(maren, { type: 'ringIn' }, 'x')).toMatchObject({ ok: false });
});

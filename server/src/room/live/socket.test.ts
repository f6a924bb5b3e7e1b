import { EventEmitter } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { io, type Socket } from 'socket.io-client';
import type { RoomEvent } from '@nimble-bell/core/room';
import { courseLimits, LECTURE } from '@nimble-bell/core/testing';
import type { MemberRow } from '../../accounts/store';
import type { Context } from '../../context';
import type { MediaRelay } from '../../media/relay';
import { memberRow } from '../../testing/coursePlan';
import type { Media } from '../effects/media';
import type { Leases } from '../lease';
import { Rooms } from '../rooms';
import type { EventRow } from '../store';
import { RATES } from './allowance';
import { RoomSocket } from './socket';
import { OPEN_AT_TABLES } from '@nimble-bell/core/limits';

let members: MemberRow[] = [];
let stored: EventRow[] = [];
let asked = 0;
const row = {
  id: 's',
  courseId: 'c',
  seriesId: 'Lecture',
  kind: 'class',
  group: null,
  published: true,
  state: 'live',
  ...LECTURE,
  layers: [courseLimits({ writeToClass: 'open' })],
};
jest.mock('../store', () => ({
  LeaseLost: class extends Error {},
  eventRowsAfter: async (_db: unknown, _id: string, seq: number) => stored.filter((r) => r.event.seq > seq),
  storeEvents: async (_db: unknown, _lease: unknown, rows: EventRow[]) => void stored.push(...rows),
  liveRooms: async () => [],
}));
jest.mock('../../courses/store', () => ({
  ...jest.requireActual<object>('../../courses/store'),
  sessionById: async () => row,
  courseById: async () => ({ id: 'c', code: 'TID-101', title: 'Tides', term: { zone: 'UTC' } }),
}));
jest.mock('../../after/store', () => ({ askedByLot: async () => ({}) }));
jest.mock('../../rules/store', () => ({ exceptionsOf: async () => [] }));
jest.mock('../../sessions/store', () => ({
  ...jest.requireActual<object>('../../sessions/store'),
  seatedIn: async () => members,
}));
jest.mock('../../accounts/store', () => ({
  memberByCode: async (_db: unknown, code: string) => {
    asked++;
    const member = members.find((m) => m.link === code);
    return member ? { member, lastSeen: Infinity } : null;
  },
  membersWhere: async (_db: unknown, _where: string, [ids]: [string[]]) =>
    members.filter((m) => ids.includes(m.id)),
  liveTokens: async () => new Set(),
  deadLink: async () => null,
}));

const NOW = LECTURE.startsAt + 60_000;
const published: string[] = [];
const media = {
  publish: async (_room: unknown, member: string) => (published.push(member), 'answer'),
  unpublish: async () => {},
  unwatch: async () => {},
  close: async () => {},
} as unknown as Media;
let hears: (session: string, publisher: string, heard: boolean) => void;
const relay = {
  ...{ available: true, onChange: () => {} },
  onVoice: (listener: typeof hears) => void (hears = listener),
} as unknown as MediaRelay;
const leases = {
  take: async (id: string) => ({ lease: { session: id, owner: 'me', epoch: 1 }, silentSince: null }),
} as unknown as Leases;

let http: Server;
let served: RoomSocket;
let ctx: Context;
const open: Socket[] = [];
const line = (link: string) => {
  const { port } = http.address() as AddressInfo;
  const auth = { link };
  const socket = io(`http://127.0.0.1:${port}`, {
    ...{ path: '/live', transports: ['websocket'], forceNew: true, reconnection: false, auth },
  });
  open.push(socket);
  return socket;
};
const enter = async (link: string) => {
  const socket = line(link);
  const reply = await socket.emitWithAck('enter', { session: 's', after: 0 });
  return { socket, reply };
};
const say = (socket: Socket, text: string, id: string = crypto.randomUUID()) =>
  socket.emitWithAck('command', { id, command: { type: 'say', addressee: { to: 'class' }, text } });
/** The next that is heard under a name. */
const next = <T>(socket: Socket, name: string) => new Promise<T>((resolve) => socket.once(name, resolve));
const said = (events: RoomEvent[]) => events.flatMap((e) => (e.type === 'said' ? [e.text] : []));

beforeEach(async () => {
  members = [
    memberRow({ id: 'maren', name: 'Maren', role: 'teacher', link: 'teachers' }),
    memberRow({ id: 'ana', name: 'Ana', link: 'anas' }),
    memberRow({ id: 'ben', name: 'Ben', link: 'bens' }),
  ];
  stored = [];
  published.length = 0;
  http = createServer();
  ctx = {
    db: {},
    now: () => NOW,
    log: { warn: () => {}, error: () => {}, info: () => {} },
    signals: new EventEmitter(),
  } as unknown as Context;
  const rooms = new Rooms(ctx, leases);
  served = new RoomSocket(ctx, http, rooms, media, relay);
  served.attendance.begin();
  await new Promise<void>((resolve) => http.listen(0, '127.0.0.1', resolve));
  const teacher = await enter('teachers');
  expect(teacher.reply.ok).toBe(true);
  const command = { type: 'ringIn' };
  const rung = await teacher.socket.emitWithAck('command', { id: crypto.randomUUID(), command });
  expect(rung.ok).toBe(true);
});
afterEach(async () => {
  for (const socket of open.splice(0)) socket.disconnect();
  await served.close();
});

test('a link that nobody has opens no line, and says so with a code', async () => {
  const error = await next<Error & { data: { code: string } }>(line('nobodys'), 'connect_error');
  expect(error.data.code).toBe('link-unknown');
});

test('who enters is given the room; what is said then reaches all who are in', async () => {
  const ana = await enter('anas');
  expect(ana.reply).toMatchObject({ ok: true, info: { me: { member: 'ana', role: 'student' } } });
  expect(ana.reply.room.bell.phase).toBe('live');
  const ben = await enter('bens');
  const heard = next<RoomEvent[]>(ben.socket, 'events');
  expect(await say(ana.socket, 'Good evening.')).toMatchObject({ ok: true });
  expect(said(await heard)).toEqual(['Good evening.']);
});

test('what is said at a table is heard there and by those who teach alone; each is given what is where they are', async () => {
  const [ana, ben] = [await enter('anas'), await enter('bens')];
  const { socket } = await enter('teachers');
  const commandOf = (by: Socket, body: object) =>
    by.emitWithAck('command', { id: crypto.randomUUID(), command: body });
  const command = (body: object) => commandOf(socket, body);
  await say(ana.socket, 'In class.');
  const tables = ['ana', 'ben'].map((member) => ({ name: member, members: [member] }));
  await command({ type: 'layTables', tables, seconds: 600, limits: OPEN_AT_TABLES });
  const heard: RoomEvent[] = [];
  ben.socket.on('events', (events: RoomEvent[]) => heard.push(...events));
  const staff = next<RoomEvent[]>(socket, 'events');
  expect(await say(ana.socket, 'Only us.')).toMatchObject({ ok: true });
  expect(said(await staff)).toEqual(['Only us.']);
  // Who speaks there is told there, and to those who teach.
  await commandOf(ana.socket, { type: 'microphone', on: true });
  const voices: object[] = [];
  ben.socket.on('voice', (voice: object) => voices.push(voice));
  const spoke = { member: 'ana', since: NOW };
  const toStaff = next(socket, 'voice');
  const there = next(ana.socket, 'voice');
  hears('s', 'ana', true);
  expect([await toStaff, await there]).toEqual([spoke, spoke]);
  expect((await enter('anas')).reply.voices).toEqual([spoke]);
  expect((await enter('bens')).reply.voices).toEqual([]);
  expect(voices).toEqual([]);
  // The notes of another table are not opened, nor written.
  const notes = { place: 'table-1-2', name: 'notes' };
  expect(await ana.socket.emitWithAck('documentOpen', notes)).toMatchObject({ ok: false });
  const texts = (r: Awaited<ReturnType<typeof enter>>['reply']) =>
    r.room.talk.messages.map((m: { text: string }) => m.text);
  expect(texts((await enter('bens')).reply)).toEqual([]);
  expect(texts((await enter('anas')).reply)).toEqual(['Only us.']);
  await command({ type: 'endTables', now: true });
  expect(texts((await enter('bens')).reply)).toEqual(['In class.']);
  expect(said(heard)).toEqual([]);
});

test('the same command twice happens once', async () => {
  const { socket } = await enter('anas');
  const id = crypto.randomUUID();
  const [first, second] = [await say(socket, 'Once.', id), await say(socket, 'Once.', id)];
  expect(second).toEqual(first);
  expect(stored.filter((r) => r.event.type === 'said')).toHaveLength(1);
});

test('whoever has not entered commands nothing; what is no message is refused in words', async () => {
  const socket = line('anas');
  expect(await say(socket, 'From outside.')).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
  const nonsense = await socket.emitWithAck('command', { id: 'no id', command: { type: 'say' } });
  expect(nonsense).toMatchObject({ ok: false, refusal: { code: 'invalid' } });
  expect(stored.some((r) => r.event.type === 'said')).toBe(false);
});

test('who is taken off the list is out in the same moment, and does not come in again', async () => {
  const { socket } = await enter('anas');
  const out = next<{ message: string }>(socket, 'put-out');
  members = members.filter((m) => m.id !== 'ana');
  const heeded: Promise<unknown>[] = [];
  ctx.signals.emit('changed', heeded);
  await Promise.all(heeded);
  expect((await out).message).toContain('no longer good');
  expect(stored.at(-1)!.event).toMatchObject({ type: 'left', member: 'ana' });
  const error = await next<Error & { data: { code: string } }>(line('anas'), 'connect_error');
  expect(error.data.code).toBe('link-unknown');
});

test('who was dropped between the handshake and entering does not enter', async () => {
  const socket = line('anas');
  await next(socket, 'connect');
  members = members.filter((m) => m.id !== 'ana');
  const reply = await socket.emitWithAck('enter', { session: 's', after: 0 });
  expect(reply).toMatchObject({ ok: false, refusal: { code: 'link-unknown' } });
});

test('observers and those outside publish nothing', async () => {
  members[1] = { ...members[1]!, role: 'observer' };
  const { socket } = await enter('anas');
  const refused = await socket.emitWithAck('publish', { sdp: 'v=0' });
  expect(refused).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
  expect(await line('bens').emitWithAck('publish', { sdp: 'v=0' })).toMatchObject({ ok: false });
  const ben = await enter('bens');
  expect(await ben.socket.emitWithAck('publish', { sdp: 'v=0' })).toMatchObject({ ok: true });
  expect(published).toEqual(['ben']);
});

test('who enters over and over, by one line or by several, has nothing read for it after so many', async () => {
  const { burst } = RATES.entries;
  const refusedOf = async (sockets: Socket[]) => {
    const replies = await Promise.all(
      Array.from({ length: 4 * burst }, (_, i) =>
        sockets[i % sockets.length]!.emitWithAck('enter', { session: 's', after: 0 }),
      ),
    );
    return replies.filter((r) => r.refusal?.code === 'too-many').length;
  };
  const { socket } = await enter('anas');
  asked = 0;
  expect(await refusedOf([socket])).toBeGreaterThan(2 * burst);
  expect(asked).toBeLessThan(2 * burst);
  const several = [line('bens'), line('bens'), line('bens')];
  expect(await refusedOf(several)).toBeGreaterThan(2 * burst);
  // It is nobody else's doing.
  expect((await enter('teachers')).reply).toMatchObject({ ok: true });
});

test('more commands than a hand can give are refused, and stored no longer', async () => {
  const { socket } = await enter('anas');
  const many = 3 * RATES.commands.burst;
  const replies = await Promise.all(Array.from({ length: many }, (_, i) => say(socket, `Word ${i}`)));
  const refused = replies.filter((r) => !r.ok);
  expect(refused.length).toBeGreaterThan(RATES.commands.burst);
  expect(refused[0].refusal.code).toBe('too-many');
  expect(stored.filter((r) => r.event.type === 'said')).toHaveLength(many - refused.length);
});

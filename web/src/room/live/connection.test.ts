import type { StoredEvent } from '@nimble-bell/core/api';
import { roomInfo } from '../../testing/render';
import { RoomConnection } from './connection';

type Handler = (...args: never[]) => void;
interface Sent {
  name: string;
  body: { id?: string; after?: number; command?: object };
  answer: (reply: unknown) => void;
}

/** A socket in the hand: what the page sends is kept, and answered by the test. */
class FakeSocket {
  connected = false;
  active = true;
  handlers = new Map<string, Handler>();
  sent: Sent[] = [];
  on(name: string, handler: Handler) {
    this.handlers.set(name, handler);
  }
  fire(name: string, ...args: unknown[]) {
    this.handlers.get(name)?.(...(args as never[]));
  }
  connect() {
    this.connected = true;
    this.fire('connect');
  }
  drop() {
    this.connected = false;
    this.fire('disconnect');
  }
  disconnect() {
    this.connected = false;
  }
  emit(name: string, body: Sent['body'], answer: Sent['answer'] = () => {}) {
    this.sent.push({ name, body, answer });
  }
  timeout() {
    return {
      emitWithAck: (name: string, body: Sent['body']) =>
        new Promise((answer) => this.sent.push({ name, body, answer })),
    };
  }
  last(name: string): Sent {
    return this.sent.filter((s) => s.name === name).at(-1)!;
  }
}

let socket: FakeSocket;
jest.mock('socket.io-client', () => ({ io: () => (socket = new FakeSocket()) }));

const settle = () => new Promise((resolve) => setTimeout(resolve, 0));
const event = (seq: number, body: object) => ({ seq, at: 1, ...body }) as StoredEvent;
const ENTERED = event(1, {
  type: 'entered',
  member: 'ana',
  name: 'Ana Lanyon',
  role: 'student',
  place: 'class',
});
const RANG_IN = event(2, { type: 'rangIn', by: 'maren' });
const info = roomInfo({ member: 'ana', role: 'student' });

async function enter(connection: RoomConnection, events: StoredEvent[], seq = events.at(-1)?.seq ?? 0) {
  connection.open();
  socket.last('enter').answer({ ok: true, info, voices: [], events, seq, now: Date.now() });
  await settle();
}

test('entering gives the room that its events make, and later events carry it on', async () => {
  const connection = new RoomConnection('session', 'link');
  let told = 0;
  connection.subscribe(() => told++);
  await enter(connection, [ENTERED, RANG_IN]);
  expect(connection.view.status).toBe('in');
  expect(connection.view.state?.bell.phase).toBe('live');
  socket.fire('events', [event(3, { type: 'handRaised', member: 'ana' })]);
  expect(connection.view.state?.floor.hands).toHaveLength(1);
  socket.fire('events', [event(3, { type: 'handRaised', member: 'ana' })]);
  expect(connection.view.state?.floor.hands).toHaveLength(1);
  expect(told).toBeGreaterThan(2);
});

test('a refusal at the door is shown in its words', async () => {
  const connection = new RoomConnection('session', 'link');
  connection.open();
  socket.last('enter').answer({ ok: false, refusal: { code: 'forbidden', message: 'This class is over.' } });
  await settle();
  expect(connection.view).toMatchObject({ status: 'refused', refusal: 'This class is over.' });
});

test('after a loss it asks for what it missed and sends again, under the same id, what was not answered', async () => {
  const connection = new RoomConnection('session', 'link');
  await enter(connection, [ENTERED, RANG_IN]);
  const done = connection.command({ type: 'raiseHand' });
  const first = socket.last('command');
  socket.drop();
  expect(connection.view.status).toBe('away');
  const later = connection.command({ type: 'say', addressee: { to: 'class' }, text: 'Still here?' });
  expect(socket.sent.filter((s) => s.name === 'command')).toHaveLength(1);
  socket.connect();
  expect(socket.last('enter').body.after).toBe(2);
  socket.last('enter').answer({
    ok: true,
    info,
    voices: [],
    events: [event(3, { type: 'hushed', by: 'maren' })],
    seq: 3,
    now: 0,
  });
  await settle();
  expect(connection.view.state?.limits.hush).not.toBeNull();
  const again = socket.sent.filter((s) => s.name === 'command').slice(1);
  expect(again.map((s) => s.body.command)).toEqual([
    { type: 'raiseHand' },
    { type: 'say', addressee: { to: 'class' }, text: 'Still here?' },
  ]);
  expect(again[0]!.body.id).toBe(first.body.id);
  for (const sent of again) sent.answer({ ok: true, seq: 3 });
  expect([await done, await later]).toEqual([
    { ok: true, seq: 3 },
    { ok: true, seq: 3 },
  ]);
});

test('who is heard is known at once, and followed', async () => {
  const connection = new RoomConnection('session', 'link');
  connection.open();
  const voices = [{ member: 'maren', since: 5 }];
  socket.last('enter').answer({ ok: true, info, voices, events: [ENTERED, RANG_IN], seq: 2, now: 0 });
  await settle();
  expect([...connection.voices.now]).toEqual([['maren', 5]]);
  socket.fire('voice', { member: 'ana', since: 7 });
  socket.fire('voice', { member: 'maren', since: null });
  expect([...connection.voices.now]).toEqual([['ana', 7]]);
});

test('what was done and never heard of is asked for', async () => {
  jest.useFakeTimers();
  try {
    const connection = new RoomConnection('session', 'link');
    connection.open();
    socket.last('enter').answer({ ok: true, info, voices: [], events: [ENTERED, RANG_IN], seq: 2, now: 0 });
    await jest.advanceTimersByTimeAsync(1);
    void connection.command({ type: 'raiseHand' });
    socket.last('command').answer({ ok: true, seq: 5 });
    await jest.advanceTimersByTimeAsync(2000);
    expect(socket.sent.filter((s) => s.name === 'enter')).toHaveLength(2);
    expect(socket.last('enter').body.after).toBe(2);
  } finally {
    jest.useRealTimers();
  }
});

test('where one may see more or less of the others, the room is asked for anew, and sound goes on', async () => {
  const connection = new RoomConnection('s1', null);
  const begun = jest.fn();
  connection.attachMedia(() => {}, begun);
  await enter(connection, [ENTERED, RANG_IN]);
  const entries = () => socket.sent.filter((s) => s.name === 'enter');
  const closed = { type: 'limitSet', by: 'maren', capability: 'seeNames', state: 'closed' };
  socket.fire('events', [event(3, closed)] as never);
  expect(entries().at(-1)!.body.after).toBe(0);
  const asked = entries().length;
  const { state } = connection.view;
  const room = { ...state!, seq: 3, presence: { people: {} } };
  socket.last('enter').answer({ ok: true, info, voices: [], room, events: [], seq: 3, now: Date.now() });
  await settle();
  expect(connection.view.state!.presence.people).toEqual({});
  expect(begun).toHaveBeenCalledTimes(1);
  socket.fire('events', [event(4, { ...closed, capability: 'speak' })] as never);
  expect(entries()).toHaveLength(asked);
});

test('what one may see now is asked for again where the server was gone before it answered, and sound begins anew', async () => {
  const connection = new RoomConnection('s1', null);
  const begun = jest.fn();
  connection.attachMedia(() => {}, begun);
  await enter(connection, [ENTERED, RANG_IN]);
  const closed = { type: 'limitSet', by: 'maren', capability: 'seeNames', state: 'closed' };
  socket.fire('events', [event(3, closed)] as never);
  socket.drop();
  socket.last('enter').answer(null);
  await settle();
  socket.connect();
  expect(socket.last('enter').body.after).toBe(0);
  const room = { ...connection.view.state!, seq: 3, presence: { people: {} } };
  socket.last('enter').answer({ ok: true, info, voices: [], room, events: [], seq: 3, now: Date.now() });
  await settle();
  expect(connection.view.state!.presence.people).toEqual({});
  expect(begun).toHaveBeenCalledTimes(2);
});

test('the relay going and coming is told, and media begin anew when it is back', async () => {
  const connection = new RoomConnection('session', 'link');
  let begun = 0;
  connection.attachMedia(
    () => {},
    () => begun++,
  );
  await enter(connection, [ENTERED]);
  expect(begun).toBe(1);
  socket.fire('relay', { available: false });
  expect(connection.view.relay).toBe(false);
  socket.fire('relay', { available: true });
  expect(begun).toBe(2);
});

test('an event that overtakes the answer to entering is taken after it, and hides nothing of it', async () => {
  const connection = new RoomConnection('session', 'link');
  await enter(connection, [ENTERED, RANG_IN]);
  socket.drop();
  socket.connect();
  socket.fire('events', [event(4, { type: 'handRaised', member: 'ana' })]);
  socket.last('enter').answer({
    ok: true,
    info,
    voices: [],
    room: null,
    events: [event(3, { type: 'hushed', by: 'maren' })],
    seq: 3,
    now: 0,
  });
  await settle();
  expect(connection.view.state).toMatchObject({ seq: 4, limits: { hush: { by: 'maren' } } });
  expect(connection.view.state?.floor.hands).toHaveLength(1);
});

test('a server in trouble is asked again; the room changing hands is no refusal', async () => {
  jest.useFakeTimers();
  try {
    const connection = new RoomConnection('session', 'link');
    connection.open();
    socket
      .last('enter')
      .answer({ ok: false, refusal: { code: 'internal', message: 'Something went wrong here.' } });
    await jest.advanceTimersByTimeAsync(1000);
    expect(connection.view.status).toBe('entering');
    socket.last('enter').answer({ ok: false, refusal: { code: 'too-many', message: 'Wait a moment.' } });
    await jest.advanceTimersByTimeAsync(1000);
    expect(connection.view.status).toBe('entering');
    socket
      .last('enter')
      .answer({ ok: true, info, voices: [], room: null, events: [ENTERED, RANG_IN], seq: 2, now: 0 });
    await jest.advanceTimersByTimeAsync(1);
    const raised = connection.command({ type: 'raiseHand' });
    const first = socket.last('command');
    first.answer({ ok: false, refusal: { code: 'elsewhere', message: '' } });
    socket.drop();
    socket.connect();
    socket.last('enter').answer({ ok: true, info, voices: [], room: null, events: [], seq: 2, now: 0 });
    await jest.advanceTimersByTimeAsync(1);
    expect(socket.last('command').body.id).toBe(first.body.id);
    socket.last('command').answer({ ok: true, seq: 3 });
    expect(await raised).toEqual({ ok: true, seq: 3 });
  } finally {
    jest.useRealTimers();
  }
});

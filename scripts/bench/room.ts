import { fork, type ChildProcess } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import type { Socket } from 'socket.io-client';
import { evolve, newRoom, versionOf, type StoredEvent } from '@nimble-bell/core/room';
import { Replay } from '@nimble-bell/core/recording';
import { courseLimits, entry, opening, TestRoom } from '@nimble-bell/core/testing';
import { account, makeCourse, type MadeCourse } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL, ROOT } from '../../e2e/support/product';
import { askStore } from '../../e2e/support/store';
import { enter, open, type Member } from './roomLine';
import { idleCrowd, oneSeat, penOverStrokes } from './roomPage';
import { ms, percentile, print, type Figure } from './table';

/** Signed in once for all rooms. */
let signedIn: Promise<string> | null = null;
async function signIn(): Promise<string> {
  const { cookies } = await (await account(MAREN)).storageState();
  return cookies.map((c) => `${c.name}=${c.value}`).join('; ');
}

export async function teacherOf(course: MadeCourse): Promise<Member> {
  signedIn ??= signIn();
  const teacher = await enter(course.session, { extraHeaders: { cookie: await signedIn } });
  await teacher.send({ type: 'ringIn' });
  return teacher;
}
const byLink = (course: MadeCourse, i: number) =>
  enter(course.session, { auth: { link: course.students[i]!.link.replace('/in/', '') } });

/** All of a class come in at once; gives how long until the last is in, ms. */
export async function entering(course: MadeCourse): Promise<{ members: Member[]; took: number }> {
  const began = performance.now();
  const members = await Promise.all(course.students.map((_s, i) => byLink(course, i)));
  return { members, took: performance.now() - began };
}

/** The same that those who come in are sent, over bare Socket.IO: as many pages connect and are answered as many bytes. */
async function bareEntering(pages: number, bytes: number, url: string): Promise<number> {
  const began = performance.now();
  const sockets = await Promise.all(
    Array.from({ length: pages }, async () => {
      const socket = await open(url, {});
      await socket.emitWithAck('enter', bytes);
      return socket;
    }),
  );
  const took = performance.now() - began;
  for (const socket of sockets) socket.disconnect();
  return took;
}

/** Says so many commands a second for a while, by members in turn; times from sending to each page's hearing. */
async function fanOut(
  listeners: readonly Socket[],
  say: (text: string, i: number) => Promise<unknown>,
  textsIn: (payload: StoredEvent[]) => string[],
  perSecond: number,
  seconds: number,
): Promise<number[]> {
  const sent = new Map<string, number>();
  const times: number[] = [];
  const hear = (payload: StoredEvent[]) => {
    const now = performance.now();
    for (const text of textsIn(payload)) {
      const at = sent.get(text);
      if (at !== undefined) times.push(now - at);
    }
  };
  for (const socket of listeners) socket.on('events', hear);
  const run = crypto.randomUUID().slice(0, 8);
  const said: Promise<unknown>[] = [];
  for (let i = 0; i < perSecond * seconds; i++) {
    const text = `${run} ${i} is what somebody says in the class`;
    sent.set(text, performance.now());
    said.push(say(text, i));
    await new Promise((resolve) => setTimeout(resolve, 1000 / perSecond));
  }
  await Promise.all(said);
  await new Promise((resolve) => setTimeout(resolve, 300));
  for (const socket of listeners) socket.off('events', hear);
  return times;
}

/** A server of nothing but Socket.IO: what it is sent, it sends to all, or to the one who listens; asked for so many bytes, it answers them. */
const BARE = `import { Server } from 'socket.io';
import { createServer } from 'node:http';
const http = createServer();
const io = new Server(http, { serveClient: false });
let one = null;
io.on('connection', (s) => {
  s.on('listen', (ack) => { one = s; ack({ ok: true }); });
  s.on('tell', (payload, ack) => { one?.emit('events', payload); ack({ ok: true }); });
  s.on('change', (payload, ack) => { io.emit('events', payload); ack({ ok: true }); });
  s.on('enter', (bytes, ack) => ack({ text: 'x'.repeat(bytes) }));
});
http.listen(0, '127.0.0.1', () => process.send(http.address().port));
`;
export async function startBare(): Promise<{ url: string; child: ChildProcess }> {
  const file = path.join(ROOT, '.tmp/scripts/bare.mjs');
  writeFileSync(file, BARE);
  const child = fork(file);
  const port = await new Promise<number>((resolve) => child.once('message', (p) => resolve(p as number)));
  return { url: `http://127.0.0.1:${port}`, child };
}

const textsOfEvents = (events: StoredEvent[]) => events.flatMap((e) => (e.type === 'said' ? [e.text] : []));
const roundsOf = 6;

/** 300 pages, 50 commands a second, beside bare Socket.IO in turn; and their coming in. */
async function largeRoom(): Promise<Figure[]> {
  const course = await makeCourse({ students: 300, limits: { writeToClass: 'open' } });
  const teacher = await teacherOf(course);
  const peer = await startBare();
  const { members, took } = await entering(course);
  const theirEntering = await bareEntering(300, 40_000, peer.url);
  const listeners = members.map((m) => m.socket);
  const sender = await open(peer.url, {});
  const bareListeners = await Promise.all(Array.from({ length: 300 }, () => open(peer.url, {})));
  const own: number[] = [];
  const bare: number[] = [];
  const say = (text: string, i: number) =>
    members[i % members.length]!.send({ type: 'say', addressee: { to: 'class' }, text });
  const change = (text: string) =>
    sender.emitWithAck('change', [
      {
        type: 'said',
        from: 'abcdefghjkmn',
        addressee: { to: 'class' },
        text,
        place: 'class',
        seq: 100_000,
        at: Date.now(),
      },
    ]);
  for (let round = 0; round < roundsOf; round++) {
    const times = await fanOut(listeners, say, textsOfEvents, 50, 4);
    const theirs = await fanOut(bareListeners, change, textsOfEvents, 50, 4);
    if (round > 0) own.push(...times);
    if (round > 0) bare.push(...theirs);
  }
  await teacher.send({ type: 'dismiss' });
  for (const s of [teacher.socket, sender, ...listeners, ...bareListeners]) s.disconnect();
  peer.child.kill();
  return [
    ...[0.5, 0.99].map((p) => ({
      what: `a word in a room of 300 pages, 50 a second, p${p * 100}`,
      ours: ms(percentile(own, p)),
      peer: 'bare Socket.IO, the same bytes and rate',
      theirs: ms(percentile(bare, p)),
      ratio: `${(percentile(own, p) / percentile(bare, p)).toFixed(2)} to 1`,
      wanted: p === 0.99 ? 'at most 1.5 to 1' : '',
    })),
    {
      what: '300 pages come in at once',
      ours: ms(took),
      peer: 'bare Socket.IO: 300 connect, 40 kB each',
      theirs: ms(theirEntering),
      ratio: `${(took / theirEntering).toFixed(2)} to 1`,
      wanted: 'at most 2 s',
    },
  ];
}

async function thousandEnter(): Promise<Figure[]> {
  const course = await makeCourse({ students: 1000 });
  const teacher = await teacherOf(course);
  const { members, took } = await entering(course);
  for (const m of members) m.socket.disconnect();
  await teacher.send({ type: 'dismiss' });
  teacher.socket.disconnect();
  const peer = await startBare();
  const theirs = await bareEntering(1000, 130_000, peer.url);
  peer.child.kill();
  return [
    {
      what: '1,000 pages come in at once',
      ours: ms(took),
      peer: 'bare Socket.IO: 1,000 connect, 130 kB each',
      theirs: ms(theirs),
      ratio: `${(took / theirs).toFixed(2)} to 1`,
      wanted: 'at most 8 s',
    },
  ];
}

/** A long, busy class: so many events, of every common kind. */
function longClass(count: number, members: readonly string[]): StoredEvent[] {
  const room = new TestRoom().happen(
    opening([courseLimits({ speak: 'open', writeToClass: 'open', draw: 'open' })]),
    ...members.map((m) => entry(m, m)),
  );
  for (let i = 0; room.events.length < count; i++) {
    const member = members[i % members.length]!;
    const kind = i % 10;
    if (kind < 3)
      room.happen({
        type: 'said',
        from: member,
        addressee: { to: 'class' },
        text: `word ${i} of the class`,
        place: 'class',
      });
    else if (kind === 3)
      room.happen({ type: 'handRaised', member }, { type: 'handLowered', by: member, member });
    else if (kind < 7) room.happen({ type: 'microphone', member, on: kind === 4 });
    else if (kind === 7 && i % 40 === 7)
      room.happen({ type: 'boardCleared', by: member, place: 'class', side: 1 });
    else if (kind === 8)
      room.happen({
        type: 'drawn',
        by: member,
        stroke: { points: Array.from({ length: 60 }, (_, k) => ((i + k) % 100) / 100), colour: 'ink' },
        ...{ place: 'class', side: 1 },
      });
    else room.happen({ type: 'limitSet', by: member, capability: 'draw', state: i % 20 ? 'open' : 'closed' });
  }
  return room.events;
}

async function latePage(): Promise<Figure[]> {
  const course = await makeCourse({ students: 60, limits: { writeToClass: 'open' } });
  const events = longClass(
    10_000,
    course.students.map((s) => s.id),
  );
  const now = Date.now();
  for (let i = 0; i < events.length; i += 1000)
    await askStore('INSERT INTO room_events (session_id, seq, at, version, body) VALUES ?', [
      events
        .slice(i, i + 1000)
        .map(({ seq, at, ...body }) => [
          course.session,
          seq,
          now + at,
          versionOf(body.type),
          JSON.stringify(body),
        ]),
    ]);
  const teacher = await teacherOf(course);
  const took: number[] = [];
  let bytes = 0;
  for (let i = 0; i < 20; i++) {
    const socket = await open(BASE_URL, {
      path: '/live',
      query: { room: course.session },
      auth: { link: course.students[i]!.link.replace('/in/', '') },
    });
    // What comes over the line, as it comes.
    const engine = socket.io.engine as unknown as {
      on: (name: 'packet', heard: (p: { data?: string }) => void) => void;
    };
    let heard = 0;
    engine.on('packet', (p) => (heard += p.data?.length ?? 0));
    const began = performance.now();
    const reply = await socket.emitWithAck('enter', { session: course.session, after: 0 });
    took.push(performance.now() - began);
    if (!reply.ok || !reply.room) throw new Error('The late page was not given the room.');
    bytes = Math.max(bytes, heard);
    socket.disconnect();
  }
  await teacher.send({ type: 'dismiss' });
  teacher.socket.disconnect();
  const all = JSON.stringify(events).length;
  return [
    {
      what: 'a late page after 10,000 events',
      ours: `${(bytes / 1000).toFixed(0)} kB, p50 ${ms(percentile(took, 0.5))}, most ${ms(Math.max(...took))}`,
      peer: 'all events as they are',
      theirs: `${(all / 1000).toFixed(0)} kB`,
      ratio: `${(bytes / all).toFixed(3)} to 1`,
      wanted: 'at most 150 kB, 100 ms',
    },
  ];
}

async function manyRooms(): Promise<Figure[]> {
  const courses: MadeCourse[] = [];
  for (let i = 0; i < 40; i++)
    courses.push(await makeCourse({ students: 15, limits: { writeToClass: 'open' } }));
  const rooms = await Promise.all(
    courses.map(async (course) => ({
      teacher: await teacherOf(course),
      members: (await entering(course)).members,
    })),
  );
  const all = await Promise.all(
    rooms.map(({ members }) =>
      fanOut(
        members.map((m) => m.socket),
        (text, i) => members[i % members.length]!.send({ type: 'say', addressee: { to: 'class' }, text }),
        textsOfEvents,
        5,
        8,
      ),
    ),
  );
  const times = all.flat();
  for (const { teacher, members } of rooms) {
    await teacher.send({ type: 'dismiss' });
    for (const m of [teacher, ...members]) m.socket.disconnect();
  }
  return [
    {
      what: '40 rooms of 15 at once, 200 words a second in all, p99',
      ours: ms(percentile(times, 0.99)),
      peer: 'a picture of a film',
      theirs: '41.7 ms',
      ratio: `${(percentile(times, 0.99) / 41.7).toFixed(2)} to 1`,
      wanted: '',
    },
  ];
}

function replay(): Figure[] {
  const events = longClass(
    10_000,
    Array.from({ length: 60 }, (_, i) => `m${i}`),
  );
  const end = events.at(-1)!.at;
  const replayed = new Replay(events, [{ from: 0, until: end }]);
  replayed.at(end);
  const times: number[] = [];
  for (let i = 0; i < 300; i++) {
    const began = performance.now();
    replayed.at(((i * 7919) % 1000) * (end / 1000));
    times.push(performance.now() - began);
  }
  const began = performance.now();
  events.reduce(evolve, newRoom());
  const whole = performance.now() - began;
  return [
    {
      what: 'replay to any moment of a class of 10,000 events, p99',
      ours: ms(percentile(times, 0.99)),
      peer: 'all its events from the beginning',
      theirs: ms(whole),
      ratio: `${(percentile(times, 0.99) / whole).toFixed(3)} to 1`,
      wanted: 'at most 20 ms',
    },
  ];
}

/** The room's figures, by the name that each is asked for with. */
const PARTS: Record<string, () => Figure[] | Promise<Figure[]>> = {
  'room-replay': replay,
  'room-300': largeRoom,
  'room-1000': thousandEnter,
  'room-late': latePage,
  'room-40': manyRooms,
  'room-idle': idleCrowd,
  'room-seat': oneSeat,
  'room-pen': penOverStrokes,
};
export const ROOM_PARTS = Object.keys(PARTS);

export async function room(wants: (name: string) => boolean): Promise<Figure[]> {
  const figures: Figure[] = [];
  for (const [name, part] of Object.entries(PARTS))
    if (wants('room') || wants(name)) {
      const found = await part();
      print(found);
      figures.push(...found);
    }
  return figures;
}

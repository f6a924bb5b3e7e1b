import { fork, type ChildProcess } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { io, type Socket } from 'socket.io-client';
import { account, makeCourse } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL, ROOT } from '../../e2e/support/product';
import { ms, percentile, type Figure } from './table';

const PAGES = 100;
const ROUNDS = 25;
const CHANGES = 40;
const WARM_UP = 60;

const connected = (socket: Socket) =>
  new Promise<Socket>((resolve) => socket.once('connect', () => resolve(socket)));
const open = (url: string, options: object) =>
  connected(io(url, { transports: ['websocket'], forceNew: true, ...options }));

interface Side {
  pages: Socket[];
  change: (i: number) => Promise<unknown>;
  stop: () => Promise<void>;
}

/** Times, over a round of changes, from sending one to each page's receiving it. */
async function round({ pages, change }: Side, changes: number): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < changes; i++) {
    let began = 0;
    const heard = pages.map(
      (page) =>
        new Promise<void>((resolve) =>
          page.once('events', () => {
            times.push(performance.now() - began);
            resolve();
          }),
        ),
    );
    began = performance.now();
    await Promise.all([change(i), ...heard]);
  }
  return times;
}

async function ours(): Promise<Side & { payload: () => unknown }> {
  const course = await makeCourse({ students: PAGES });
  const api = await account(MAREN);
  const { cookies } = await api.storageState();
  const cookie = cookies.map((c) => `${c.name}=${c.value}`).join('; ');
  const teacher = await open(BASE_URL, { path: '/live', extraHeaders: { cookie } });
  const enter = (socket: Socket) => socket.emitWithAck('enter', { session: course.session, after: 0 });
  const send = (command: object) => teacher.emitWithAck('command', { id: crypto.randomUUID(), command });
  await enter(teacher);
  await send({ type: 'ringIn' });
  const pages = await Promise.all(
    course.students.map((s) => open(BASE_URL, { path: '/live', auth: { link: s.link.replace('/in/', '') } })),
  );
  await Promise.all(pages.map(enter));
  let payload: unknown;
  pages[0]!.on('events', (events: unknown) => (payload = events));
  return {
    pages,
    payload: () => payload,
    change: (i) => send({ type: 'setLimit', capability: 'speak', state: i % 2 ? 'open' : 'closed' }),
    stop: async () => {
      await send({ type: 'dismiss' });
      for (const socket of [teacher, ...pages]) socket.disconnect();
    },
  };
}

/** A server of nothing but Socket.IO: what it is sent, it sends to all. */
const BARE = `import { Server } from 'socket.io';
import { createServer } from 'node:http';
const http = createServer();
const io = new Server(http, { serveClient: false });
io.on('connection', (s) => s.on('change', (payload, ack) => { io.emit('events', payload); ack({ ok: true }); }));
http.listen(0, '127.0.0.1', () => process.send(http.address().port));
`;

async function bare(payload: () => unknown): Promise<Side> {
  const file = path.join(ROOT, '.tmp/scripts/bare.mjs');
  writeFileSync(file, BARE);
  const child: ChildProcess = fork(file);
  const port = await new Promise<number>((resolve) => child.once('message', (p) => resolve(p as number)));
  const url = `http://127.0.0.1:${port}`;
  const sender = await open(url, {});
  const pages = await Promise.all(Array.from({ length: PAGES }, () => open(url, {})));
  return {
    pages,
    change: () => sender.emitWithAck('change', payload()),
    stop: async () => {
      for (const socket of [sender, ...pages]) socket.disconnect();
      child.kill();
    },
  };
}

/** The two in turn, round by round, so that the machine's moods meet both. */
export async function limits(): Promise<Figure[]> {
  const own = await ours();
  const peer = await bare(own.payload);
  await round(own, WARM_UP);
  await round(peer, WARM_UP);
  const times: number[] = [];
  const theirs: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    times.push(...(await round(own, CHANGES)));
    theirs.push(...(await round(peer, CHANGES)));
  }
  await own.stop();
  await peer.stop();
  return [0.5, 0.99].map((p) => ({
    what: `a limits change reaches ${PAGES} pages, p${p * 100}`,
    ours: ms(percentile(times, p)),
    peer: 'bare Socket.IO broadcast of the same bytes',
    theirs: ms(percentile(theirs, p)),
    ratio: `${(percentile(times, p) / percentile(theirs, p)).toFixed(2)} to 1`,
    wanted: p === 0.99 ? 'at most 2 to 1' : '',
  }));
}

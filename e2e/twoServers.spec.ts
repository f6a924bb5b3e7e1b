import { spawn, type ChildProcess } from 'node:child_process';
import { createServer, connect, type Server } from 'node:net';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { account, makeCourse, type MadeCourse } from './support/course';
import { MAREN } from './support/people';
import { PageWithout } from './support/pageWithout';
import { BASE_URL, DATA, NOW, PORT, ROOT } from './support/product';
import { askStore, replayed, storedEvents } from './support/store';

const OTHER = PORT + 60;
const PROXY = PORT + 61;

let other: ChildProcess;
let proxy: Server;
/** Where the plain proxy sends the next line: by turns, whatever the line is for. */
let turn = 0;

async function startOther(): Promise<ChildProcess> {
  const child = spawn(process.execPath, [path.join(ROOT, 'server/dist/main.js')], {
    env: {
      ...process.env,
      DATABASE_URL: `mysql://root@127.0.0.1:${PORT + 1}/nimble_bell`,
      RELAY_URL: `ws://127.0.0.1:${PORT + 2}`,
      NB_PORT: String(OTHER),
      NB_MAILBOX_PORT: String(PORT + 3),
      NB_INBOX_PORT: String(PORT + 4),
      NB_DATA: DATA,
      NB_WEB: path.join(ROOT, 'web/dist'),
      // The same clock as the product under test runs by.
      NB_CLOCK_OFFSET: String(await clockOffset()),
      LOG_LEVEL: 'warn',
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const healthy = async () =>
    (await fetch(`http://127.0.0.1:${OTHER}/api/health`).catch(() => null))?.ok ?? false;
  await expect.poll(healthy, { timeout: 20_000 }).toBe(true);
  return child;
}

async function clockOffset(): Promise<number> {
  const { now } = (await (await fetch(`${BASE_URL}/api/health`)).json()) as { now: number };
  expect(Math.abs(now - Date.parse(NOW))).toBeLessThan(7_200_000);
  return now - Date.now();
}

test.beforeAll(async () => {
  other = await startOther();
  proxy = createServer((line) => {
    const ports = [PORT, OTHER];
    const reach = (tries: number) => {
      const on = connect(ports[turn++ % 2]!, '127.0.0.1');
      let joined = false;
      on.on('error', () => (tries && !joined ? reach(tries - 1) : line.destroy()));
      on.on('connect', () => {
        joined = true;
        on.pipe(line).pipe(on);
        on.on('close', () => line.destroy());
        line.on('close', () => on.destroy());
      });
    };
    line.on('error', () => line.destroy());
    reach(1);
  }).listen(PROXY, '127.0.0.1');
});
test.afterAll(() => {
  proxy.close();
  other.kill('SIGKILL');
});

const holderOf = async (course: MadeCourse) => {
  const [row] = await askStore<{ address: string; epoch: number }>(
    'SELECT s.address, l.epoch FROM room_leases l JOIN servers s ON s.id = l.owner WHERE l.session_id = ?',
    [course.session],
  );
  return row!;
};

/** A class whose students walk in by way of these addresses, the first of them being where its room comes to be. */
async function inClass(first: string, then: string): Promise<[MadeCourse, PageWithout[]]> {
  const course = await makeCourse({ students: 6, apart: true, limits: { writeToClass: 'open' } });
  await askStore(
    `UPDATE courses SET settings = JSON_SET(settings, '$.door', JSON_OBJECT('teacherFirst', JSON_COMPACT('{"value":false,"by":null,"at":null}'),
       'opensMinutesBefore', JSON_COMPACT('{"value":240,"by":null,"at":null}'))) WHERE id = ?`,
    [course.id],
  );
  const pages = [new PageWithout(course.students[0]!.link, course.session, first)];
  await pages[0]!.untilIn();
  for (const s of course.students.slice(1)) pages.push(new PageWithout(s.link, course.session, then));
  for (const p of pages) await p.untilIn();
  return [course, pages];
}
const say = (p: PageWithout, text: string) => p.do({ type: 'say', addressee: { to: 'class' }, text });

/** Makes the session's class live, as ring-in does, for rooms without a teacher in them. */
const begin = (course: MadeCourse) =>
  askStore("UPDATE sessions SET state = 'live' WHERE id = ?", [course.session]);

test('a room is held by one of two servers, and pages that reach the other are joined to it', async () => {
  const viaProxy = `http://127.0.0.1:${PROXY}`;
  const [atOther, theirs] = await inClass(`http://127.0.0.1:${OTHER}`, viaProxy);
  const [atFirst, ours] = await inClass(BASE_URL, viaProxy);
  expect((await holderOf(atOther)).address).toBe(`127.0.0.1:${OTHER}`);
  expect((await holderOf(atFirst)).address).toBe(`127.0.0.1:${PORT}`);
  const words = async (pages: PageWithout[], text: string) =>
    Promise.all(pages.map(async (p, i) => expect((await say(p, `${text} ${i}`)).ok).toBe(true)));
  await Promise.all([words(theirs, 'there'), words(ours, 'here')]);
  for (const [course, pages] of [
    [atOther, theirs],
    [atFirst, ours],
  ] as const) {
    const room = replayed(await storedEvents(course.session));
    for (const p of pages) await expect.poll(() => p.view.state!.talk.messages).toEqual(room.talk.messages);
    expect((await storedEvents(course.session)).some((r) => r.event.type === 'interrupted')).toBe(false);
  }

  // Somebody is taken off the list by a request to the one server; the room is the other's.
  const api = await account(MAREN);
  const gone = atOther.students[2]!;
  await api.post(`/api/courses/${atOther.id}/members`, { data: { edit: 'drop', members: [gone.id] } });
  await expect.poll(() => theirs[2]!.view.status, { timeout: 2500 }).toBe('refused');
  for (const p of [...theirs, ...ours]) p.close();
});

test("a killed server's rooms are taken over, with all pages back within five seconds", async () => {
  const [course, pages] = await inClass(`http://127.0.0.1:${OTHER}`, `http://127.0.0.1:${PROXY}`);
  await begin(course);
  expect((await say(pages[1]!, 'before')).ok).toBe(true);
  const before = (await holderOf(course)).epoch;
  // The first page was loaded from the server that dies: its address is the proxy's from here on.
  const stays = pages.slice(1);
  const killed = Date.now();
  other.kill('SIGKILL');
  for (const p of stays) await expect.poll(() => p.view.status, { intervals: [20] }).toBe('away');
  const written = say(stays[0]!, 'while nobody held it');
  for (const p of stays) await p.untilIn();
  const back = Date.now() - killed;
  console.log(`all pages were back ${back} ms after their server was killed`);
  expect(back).toBeLessThan(5000);
  expect((await written).ok).toBe(true);
  expect(await holderOf(course)).toEqual({ address: `127.0.0.1:${PORT}`, epoch: before + 1 });
  const rows = await storedEvents(course.session);
  const texts = rows.flatMap((r) => (r.event.type === 'said' ? [r.event.text] : []));
  expect(texts).toEqual(['before', 'while nobody held it']);
  for (const p of pages) p.close();
  other = await startOther();
});

test('a server that was stopped for a while and wakes up writes into no room that another has taken', async () => {
  const [course, pages] = await inClass(`http://127.0.0.1:${OTHER}`, `http://127.0.0.1:${OTHER}`);
  await begin(course);
  other.kill('SIGSTOP');
  const newcomer = new PageWithout(course.students[0]!.link, course.session, BASE_URL);
  await newcomer.untilIn(15_000);
  expect((await say(newcomer, 'under the new holder')).ok).toBe(true);
  const late = say(pages[1]!, 'asked of the old holder');
  other.kill('SIGCONT');
  expect((await late).ok).toBe(true);
  await expect.poll(() => pages[1]!.view.status, { timeout: 10_000 }).toBe('in');
  const rows = await storedEvents(course.session);
  expect(rows.map((r) => r.event.seq)).toEqual(rows.map((_r, i) => i + 1));
  const texts = rows.flatMap((r) => (r.event.type === 'said' ? [r.event.text] : []));
  expect(texts).toEqual(['under the new holder', 'asked of the old holder']);
  expect((await holderOf(course)).address).toBe(`127.0.0.1:${PORT}`);
  for (const p of [...pages, newcomer]) p.close();
});

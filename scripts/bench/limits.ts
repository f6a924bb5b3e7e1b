import { performance } from 'node:perf_hooks';
import { chromium } from '@playwright/test';
import { CAPABILITY_IDS, Permission, SHIPPED_SHEETS, type SomeLimits } from '@nimble-bell/core/limits';
import { may, type RoomState, type StoredEvent } from '@nimble-bell/core/room';
import { noSettings, withValues, type LayerName } from '@nimble-bell/core/settings';
import { entry, opening, TestRoom } from '@nimble-bell/core/testing';
import { account, makeCourse } from '../../e2e/support/course';
import config from '../../e2e/playwright.config';
import { Tampered } from '../../e2e/support/tampered';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL } from '../../e2e/support/product';
import { entering, startBare, teacherOf } from './room';
import { open } from './roomLine';
import { ms, percentile, type Figure } from './table';

const PEOPLE = 300;
const WARM = 50;
const TIMED = 200;

const some = (i: number): SomeLimits =>
  Object.fromEntries(
    CAPABILITY_IDS.filter((_, k) => (i + k) % 3 === 0).map((c) => [c, Permission.options[i % 3]]),
  );

/** 300 people in a room whose seven layers all say something: course, series, session, part, class, person, hush. */
function fullRoom(): RoomState {
  const layer = (name: LayerName, i: number) => ({
    name,
    settings: withValues(noSettings(), 'limits', some(i), 'maren', 1),
  });
  const room = new TestRoom().happen(
    opening([layer('course', 0), layer('series', 1), layer('session', 2)]),
    ...Array.from({ length: PEOPLE }, (_, i) => entry(`m${i}`)),
    { type: 'rangIn', by: 'maren' },
    {
      type: 'cued',
      by: 'maren',
      index: 0,
      segment: { title: 'Part', minutes: 5, limits: some(1), recording: null },
      changes: {},
    },
    { type: 'limitSet', by: 'maren', capability: 'speak', state: 'open' },
    ...Array.from({ length: PEOPLE / 3 }, (_, i) => ({
      ...{ type: 'excepted' as const, by: 'maren', member: `m${i * 3}` },
      ...{ capability: 'present' as const, state: 'open' as const, until: null },
    })),
    { type: 'hushed', by: 'maren' },
  );
  return room.state;
}

/** What everybody may, asked of core alone: before a product is started, whose work would be timed with it. */
export function resolving(): Figure[] {
  const room = fullRoom();
  const people = Object.values(room.presence.people);
  const plain = new Map(
    people.flatMap((p) => CAPABILITY_IDS.map((c) => [`${p.member}/${c}`, true] as const)),
  );
  const timed = (work: (member: (typeof people)[number], c: (typeof CAPABILITY_IDS)[number]) => boolean) => {
    const times: number[] = [];
    for (let run = 0; run < WARM + TIMED; run++) {
      const began = performance.now();
      let open_ = 0;
      for (const p of people) for (const c of CAPABILITY_IDS) if (work(p, c)) open_++;
      if (run >= WARM) times.push(performance.now() - began);
      if (open_ < 0) throw new Error('Nothing was asked.');
    }
    return percentile(times, 0.99);
  };
  const ours = timed((p, c) => may(room, p, c).allowed);
  const theirs = timed((p, c) => plain.get(`${p.member}/${c}`)!);
  return [
    {
      what: `what ${PEOPLE} people may, ${CAPABILITY_IDS.length} capabilities, 7 layers, p99 of ${TIMED}`,
      ours: ms(ours),
      peer: 'as many look-ups in a table made before',
      theirs: ms(theirs),
      ratio: `${(ours / theirs).toFixed(1)} to 1`,
      wanted: 'at most 5 ms',
    },
  ];
}

/** A cue, given every 200 ms, until each of 300 pages has heard of it; beside the same bytes over bare Socket.IO. */
async function cueing(): Promise<Figure[]> {
  const course = await makeCourse({ students: PEOPLE });
  const api = await account(MAREN);
  const segments = SHIPPED_SHEETS.map((s) => ({ title: s.name, minutes: 10, sheet: s.id }));
  const at = { layer: 'session', ids: [course.session] };
  const answer = await api.put(`/api/courses/${course.id}/rules`, { data: { at, segments } });
  if (!answer.ok()) throw new Error(await answer.text());
  const teacher = await teacherOf(course);
  const { members } = await entering(course);
  const peer = await startBare();
  const sender = await open(peer.url, {});
  const bareListeners = await Promise.all(Array.from({ length: PEOPLE }, () => open(peer.url, {})));
  const own: number[] = [];
  const bare: number[] = [];
  let bytes: StoredEvent[] = [];
  let began = 0;
  for (const { socket } of members)
    socket.on('events', (events: StoredEvent[]) => {
      if (!events.some((e) => e.type === 'cued')) return;
      own.push(performance.now() - began);
      bytes = events;
    });
  for (const socket of bareListeners) socket.on('events', () => bare.push(performance.now() - began));
  const pause = () => new Promise((resolve) => setTimeout(resolve, 200));
  for (let i = 1; i <= 40; i++) {
    began = performance.now();
    await teacher.send({ type: 'cue', index: i % segments.length });
    await pause();
    began = performance.now();
    await sender.emitWithAck('change', bytes);
    await pause();
  }
  if (own.length < PEOPLE * 40) throw new Error(`Only ${own.length} of ${PEOPLE * 40} were told.`);
  await teacher.send({ type: 'dismiss' });
  for (const s of [teacher.socket, sender, ...members.map((m) => m.socket), ...bareListeners]) s.disconnect();
  peer.child.kill();
  await api.dispose();
  return [0.5, 0.99].map((p) => ({
    what: `a cue with its limits reaches ${PEOPLE} pages, p${p * 100}`,
    ours: ms(percentile(own, p)),
    peer: 'bare Socket.IO, the same bytes',
    theirs: ms(percentile(bare, p)),
    ratio: `${(percentile(own, p) / percentile(bare, p)).toFixed(2)} to 1`,
    wanted: '',
  }));
}

const SPEAKERS = 8;
const CLOSINGS = 10;

/**
 * From a hush, given while some speak, until the relay passes nothing of them on any more, as somebody who listens has
 * it: what the relay has confirmed is closed, and what was on its way has come. Beside it, until the same page has heard
 * of the hush.
 */
async function closing(): Promise<Figure[]> {
  const course = await makeCourse({ students: SPEAKERS + 1, limits: { speak: 'open' } });
  const teacher = await teacherOf(course);
  await teacher.send({ type: 'ringIn' });
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const pages = await Promise.all(
      course.students.map(async (s) => {
        const page = await browser.newPage({ baseURL: BASE_URL });
        await page.goto('/listed');
        const one = new Tampered(page, s.link, course.session);
        await one.enter();
        return one;
      }),
    );
    const [listener, ...speakers] = pages as [Tampered, ...Tampered[]];
    await listener.listen();
    for (const s of speakers) {
      if (!(await s.publish())) throw new Error('Nothing was published.');
      await s.command({ type: 'microphone', on: true });
    }
    const sum = async () => Object.values(await listener.received()).reduce((a, b) => a + b, 0);
    const quiet: number[] = [];
    const heard: number[] = [];
    for (let i = 0; i < CLOSINGS; i++) {
      while ((await listener.arriving(300)) < SPEAKERS * 5) await listener.page.waitForTimeout(100);
      const began = performance.now();
      listener.socket.once('events', () => heard.push(performance.now() - began));
      await teacher.send({ type: 'hush' });
      let last = began;
      for (let n = await sum(); performance.now() - last < 250;) {
        const now = await sum();
        if (now !== n) last = performance.now();
        n = now;
      }
      quiet.push(last - began);
      await teacher.send({ type: 'lift' });
    }
    await teacher.send({ type: 'dismiss' });
    for (const p of pages) p.close();
    return [0.5, 1].map((p) => ({
      what: `a hush until nothing of ${SPEAKERS} who speak arrives, ${p === 1 ? 'slowest' : 'half'} of ${CLOSINGS}`,
      ours: ms(percentile(quiet, p)),
      peer: 'until the page has heard of it',
      theirs: ms(percentile(heard, p)),
      ratio: `${(percentile(quiet, p) / percentile(heard, p)).toFixed(1)} to 1`,
      wanted: '',
    }));
  } finally {
    teacher.socket.disconnect();
    await browser.close();
  }
}

/** What limits cost when they are cued to a large class, and closed. */
export const limits = async (): Promise<Figure[]> => [...(await cueing()), ...(await closing())];

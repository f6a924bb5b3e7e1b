import { performance } from 'node:perf_hooks';
import { chromium, type Page } from '@playwright/test';
import type { Socket } from 'socket.io-client';
import type { RelayOffer } from '@nimble-bell/core/api';
import type { StoredEvent } from '@nimble-bell/core/room';
import config from '../../e2e/playwright.config';
import { makeCourse } from '../../e2e/support/course';
import { BASE_URL } from '../../e2e/support/product';
import { entering, teacherOf } from './room';
import { type Member } from './roomLine';
import { ms, type Figure } from './table';
import { OPEN_AT_TABLES } from '@nimble-bell/core/limits';

const STUDENTS = 150;
const TABLES = 30;
const ROUNDS = 4;
/** So many speak all the time, each at a table of their own, and of those at it so many hear. */
const SPEAK = 8;
const HEAR = 3;

/** What the page below can be asked for; `n` is whose line it is. */
interface SoundPage {
  offer: (n: number) => Promise<string>;
  take: (n: number, sdp: string) => Promise<void>;
  receive: (n: number, sdp: string) => Promise<string>;
  /** Packets of sound that have come by now, of each line by its media sections. */
  heard: () => Promise<Record<string, number>[]>;
}
/** There it is a global. */
declare const lines: SoundPage;

/** A page whose lines speak, and hear. */
async function soundPage(page: Page) {
  await page.goto('/mailbox');
  await page.evaluate(() => {
    const audio = new AudioContext();
    const out = audio.createMediaStreamDestination();
    const tone = new OscillatorNode(audio, { frequency: 220 });
    tone.connect(out);
    tone.start();
    const [track] = out.stream.getAudioTracks();
    const speaking: RTCPeerConnection[] = [];
    const hearing: RTCPeerConnection[] = [];
    const gathered = async (line: RTCPeerConnection) => {
      while (line.iceGatheringState !== 'complete') await new Promise((done) => setTimeout(done, 10));
      return line.localDescription!.sdp;
    };
    const made: SoundPage = {
      offer: async (n) => {
        const line = (speaking[n] = new RTCPeerConnection());
        line.addTransceiver(track!, { direction: 'sendonly' });
        for (let i = 0; i < 2; i++) line.addTransceiver('video', { direction: 'sendonly' });
        await line.setLocalDescription();
        return gathered(line);
      },
      take: (n, sdp) => speaking[n]!.setRemoteDescription({ type: 'answer', sdp }),
      receive: async (n, sdp) => {
        const line = (hearing[n] ??= new RTCPeerConnection());
        await line.setRemoteDescription({ type: 'offer', sdp });
        await line.setLocalDescription();
        return gathered(line);
      },
      heard: () =>
        Promise.all(
          hearing.map(async (line) => {
            const packets: Record<string, number> = {};
            (await line.getStats()).forEach(
              (of: { type: string; mid?: string; packetsReceived?: number }) => {
                if (of.type === 'inbound-rtp') packets[of.mid ?? ''] = of.packetsReceived ?? 0;
              },
            );
            return packets;
          }),
        ),
    };
    Object.assign(window, { lines: made });
  });
}

/** Who hears, whom they are to hear at their table, and from whom what they are given comes, by media section. */
interface Hearer {
  socket: Socket;
  speaker: string;
  streams: Map<string, string>;
}

/** Who speaks goes on the relay, with their microphone on; who hears is given what is sent where they are. */
async function withSound(page: Page, speakers: readonly Member[], hearers: readonly Hearer[]) {
  for (const [n, { socket, send }] of speakers.entries()) {
    const sdp = await page.evaluate((i) => lines.offer(i), n);
    const reply = await socket.emitWithAck('publish', { sdp });
    if (!reply.ok) throw new Error(reply.refusal.message);
    await page.evaluate(([i, answer]) => lines.take(i, answer), [n, reply.sdp as string] as const);
    await send({ type: 'microphone', on: true });
  }
  for (const [n, hearer] of hearers.entries()) {
    const { socket } = hearer;
    // One offer after the other, as a page takes them.
    let turn = Promise.resolve();
    socket.on('offer', ({ sdp, streams }: RelayOffer) => {
      turn = turn.then(async () => {
        const answer = await page.evaluate(([i, offer]) => lines.receive(i, offer), [n, sdp] as const);
        hearer.streams = new Map(streams.map((s) => [s.mid, s.member]));
        await socket.emitWithAck('answer', { sdp: answer });
      });
    });
    await socket.emitWithAck('watch', { cameras: [], small: [] });
  }
}

/** Until each of those who hear is sent the sound of who speaks at their table, and of nobody else; ms from `began`. */
async function untilHeard(page: Page, hearers: readonly Hearer[], began: number): Promise<number> {
  let before = await page.evaluate(() => lines.heard());
  for (;;) {
    await page.waitForTimeout(60);
    const now = await page.evaluate(() => lines.heard());
    const alone = hearers.every(({ streams, speaker }, i) => {
      const came = Object.keys(now[i] ?? {}).filter((mid) => now[i]![mid]! > (before[i]?.[mid] ?? 0));
      return came.length === 1 && streams.get(came[0]!) === speaker;
    });
    if (alone) return performance.now() - began;
    if (performance.now() - began > 30_000) throw new Error('Somebody does not hear their table alone.');
    before = now;
  }
}

/** As a page does: it hears that it is elsewhere, and asks for the room as it is there. */
const moved = (session: string, members: readonly Member[]) =>
  Promise.all(
    members.map(
      ({ socket }) =>
        new Promise<number>((resolve) => {
          const hear = async (events: StoredEvent[]) => {
            if (!events.some((e) => e.type === 'wentTo')) return;
            socket.off('events', hear);
            await socket.emitWithAck('enter', { session, after: 0 });
            resolve(performance.now());
          };
          socket.on('events', hear);
        }),
    ),
  );

/**
 * A class of 150 goes to 30 tables and back: until every page has been told, and has been given the room as it is at its
 * table; and, while some of them speak, until those who sit with them hear them there.
 */
export async function tables(): Promise<Figure[]> {
  const course = await makeCourse({ students: STUDENTS, limits: { speak: 'open' } });
  const teacher = await teacherOf(course);
  const { members } = await entering(course);
  const { session } = course;
  const ids = await Promise.all(
    members.map(async ({ socket }) => {
      const { info } = await socket.emitWithAck('enter', { session, after: 0 });
      return info.me.member as string;
    }),
  );
  const laid = Array.from({ length: TABLES }, (_, t) => ({
    name: `Table ${t + 1}`,
    members: ids.filter((_id, i) => i % TABLES === t),
  }));
  const there = { type: 'layTables', tables: laid, seconds: null, limits: OPEN_AT_TABLES } as const;
  const back = { type: 'endTables', now: true } as const;
  const times: number[] = [];
  const move = async (command: typeof there | typeof back) => {
    const all = moved(session, members);
    const began = performance.now();
    await teacher.send(command as never);
    times.push(Math.max(...(await all)) - began);
    return began;
  };
  for (let round = 0; round < ROUNDS; round++) for (const command of [there, back]) await move(command);
  const silent = Math.max(...times);

  const browser = await chromium.launch(config.use!.launchOptions);
  const heard: number[] = [];
  try {
    const page = await browser.newPage({ baseURL: BASE_URL });
    await soundPage(page);
    const at = (i: number) => i % TABLES < SPEAK && i >= TABLES && i < TABLES * (HEAR + 1);
    const hearers = members.flatMap(({ socket }, i): Hearer[] =>
      at(i) ? [{ socket, speaker: ids[i % TABLES]!, streams: new Map() }] : [],
    );
    await withSound(page, members.slice(0, SPEAK), hearers);
    times.length = 0;
    for (let round = 0; round < ROUNDS; round++) {
      await page.waitForTimeout(2000);
      heard.push(await untilHeard(page, hearers, await move(there)));
      await page.waitForTimeout(1000);
      await move(back);
    }
    await page.waitForTimeout(1000);
    for (const { socket } of hearers) socket.off('offer');
  } finally {
    await browser.close();
  }
  // What it costs to give all of them the room without any move.
  const bareBegan = performance.now();
  await Promise.all(members.map(({ socket }) => socket.emitWithAck('enter', { session, after: 0 })));
  const bare = performance.now() - bareBegan;
  await teacher.send({ type: 'dismiss' });
  for (const socket of [teacher.socket, ...members.map((m) => m.socket)]) socket.disconnect();
  const row = (what: string, took: number, peer: string, theirs: number): Figure => ({
    ...{ what, peer, ours: ms(took), theirs: ms(theirs) },
    ratio: `${(took / theirs).toFixed(2)} to 1`,
    wanted: 'at most 3 s',
  });
  const [noSound, sounding] = [silent, Math.max(...times)];
  const all = `${STUDENTS} to ${TABLES} tables and back, until each page has its place, worst of ${2 * ROUNDS}`;
  return [
    row(all, noSound, 'all of them given the room, without a move', bare),
    row(
      `the same while ${SPEAK} speak, and ${SPEAK * HEAR} of the others hear`,
      sounding,
      'without sound',
      noSound,
    ),
    row(
      `of it, until all of them hear who speaks at their table, worst of ${ROUNDS}`,
      Math.max(...heard),
      'until each page has its place',
      sounding,
    ),
  ];
}

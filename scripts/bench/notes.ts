import { performance } from 'node:perf_hooks';
import type { Socket } from 'socket.io-client';
import * as Y from 'yjs';
import { makeCourse } from '../../e2e/support/course';
import { entering, startBare, teacherOf } from './room';
import { open } from './roomLine';
import { ms, percentile, type Figure } from './table';

const WRITERS = 100;
/** Each writes so often, and for so long; what is written in between goes together, as a page sends it. */
const EVERY_MS = 2000;
const TIMES = 8;
const OF = { place: 'class', name: 'notes' };

/** What somebody writes, in one of its turns. */
const said = (i: number, n: number) => `writer ${i}, ${n}. `;
const wait = (forMs: number) => new Promise((resolve) => setTimeout(resolve, forMs));

/** Everybody in turn through a second sends what `next` gives; gives how long each took until the last of the others had it. */
async function fanned<P>(
  sockets: readonly Socket[],
  heardAs: string,
  keyIn: (payload: P) => string,
  send: (i: number, n: number) => { key: string; sent: Promise<unknown> },
): Promise<number[]> {
  const began = new Map<string, number>();
  const heard = new Map<string, { count: number; last: number }>();
  for (const socket of sockets)
    socket.on(heardAs, (payload: P) => {
      const key = keyIn(payload);
      const known = heard.get(key) ?? { count: 0, last: 0 };
      heard.set(key, { count: known.count + 1, last: performance.now() });
    });
  const writing = sockets.map(async (_s, i) => {
    await wait((EVERY_MS * i) / sockets.length);
    for (let n = 0; n < TIMES; n++) {
      const at = performance.now();
      const { key, sent } = send(i, n);
      began.set(key, at);
      await Promise.all([sent, wait(EVERY_MS)]);
    }
  });
  await Promise.all(writing);
  await wait(1000);
  return [...began].map(([key, at]) => {
    const { count, last } = heard.get(key) ?? { count: 0, last: 0 };
    if (count < sockets.length - 1) throw new Error(`Only ${count} of the others have heard of it.`);
    return last - at;
  });
}

/** A hundred write the class notes at once: until everybody has what each wrote; and all have the same in the end. */
export async function notes(): Promise<Figure[]> {
  const course = await makeCourse({ students: WRITERS, limits: { writeNotes: 'open' } });
  const teacher = await teacherOf(course);
  const { members } = await entering(course);
  const sockets = members.map((m) => m.socket);
  const docs = sockets.map(() => new Y.Doc());
  for (const [i, socket] of sockets.entries()) {
    const { updates } = await socket.emitWithAck('documentOpen', OF);
    for (const u of updates as string[]) Y.applyUpdate(docs[i]!, Buffer.from(u, 'base64'));
    socket.on('document', ({ update }: { update: string }) =>
      Y.applyUpdate(docs[i]!, Buffer.from(update, 'base64')),
    );
  }
  const own = await fanned(
    sockets,
    'document',
    ({ update }: { update: string }) => update,
    (i, n) => {
      const doc = docs[i]!;
      const before = Y.encodeStateVector(doc);
      const text = doc.getText('t');
      text.insert((i * 31 + n * 7) % (text.length + 1), said(i, n));
      const update = Buffer.from(Y.encodeStateAsUpdate(doc, before)).toString('base64');
      const sent = sockets[i]!.emitWithAck('documentUpdate', { ...OF, update }).then((reply) => {
        if (!reply.ok) throw new Error(reply.refusal.message);
      });
      return { key: update, sent };
    },
  );
  const texts = new Set(docs.map((doc) => doc.getText('t').toString()));
  const [text] = [...texts] as [string];
  if (texts.size > 1) throw new Error(`${texts.size} texts where there should be one.`);
  const length = docs.reduce((sum, _d, i) => sum + TIMES * said(i, 0).length, 0);
  if (text.length !== length) throw new Error(`${text.length} of ${length} letters came.`);

  const peer = await startBare();
  const bareSockets = await Promise.all(sockets.map(() => open(peer.url, {})));
  const bare = await fanned(
    bareSockets,
    'events',
    (payload: [{ key: string }]) => payload[0].key,
    (i, n) => {
      const key = `${i} ${n}`;
      return { key, sent: bareSockets[i]!.emitWithAck('change', [{ key, text: 'x'.repeat(60) }]) };
    },
  );
  await teacher.send({ type: 'dismiss' });
  for (const socket of [teacher.socket, ...sockets, ...bareSockets]) socket.disconnect();
  peer.child.kill();
  const row = (p: number, wanted: string): Figure => {
    const [ours, theirs] = [percentile(own, p), percentile(bare, p)];
    return {
      what: `the notes with ${WRITERS} writers, ${(1000 * WRITERS) / EVERY_MS} changes a second, until all have one, p${100 * p}`,
      ours: ms(ours),
      peer: 'bare Socket.IO, not stored',
      theirs: ms(theirs),
      ratio: `${(ours / theirs).toFixed(2)} to 1`,
      wanted,
    };
  };
  return [row(0.5, ''), row(0.99, 'at most 1 s')];
}

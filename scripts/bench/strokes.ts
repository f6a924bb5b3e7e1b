import { performance } from 'node:perf_hooks';
import type { Socket } from 'socket.io-client';
import type { StoredEvent } from '@nimble-bell/core/room';
import { makeCourse } from '../../e2e/support/course';
import { entering, startBare, teacherOf } from './room';
import { open } from './roomLine';
import { ms, percentile, type Figure } from './table';

const STROKES = 300;
const PAUSE_MS = 25;

/** A stroke of 60 points, no two alike in their first. */
const stroke = (n: number) => ({
  points: Array.from({ length: 120 }, (_, k) => ((n * 37 + k * (k % 2 ? 3 : 7)) % 1000) / 1000),
  colour: 'ink' as const,
});

/** From sending each until it is heard, one after another. */
async function timesOf(
  listener: Socket,
  send: (n: number) => Promise<unknown>,
  holds: (payload: StoredEvent[]) => boolean,
): Promise<number[]> {
  const times: number[] = [];
  for (let n = 0; n < STROKES; n++) {
    const heard = new Promise<number>((resolve) => {
      const hear = (payload: StoredEvent[]) => {
        if (!holds(payload)) return;
        listener.off('events', hear);
        resolve(performance.now());
      };
      listener.on('events', hear);
    });
    const began = performance.now();
    void send(n);
    times.push((await heard) - began);
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
  return times;
}

/** A stroke on the board until it is on another page's line: decided, stored and told, beside the same over bare Socket.IO. */
export async function strokes(): Promise<Figure[]> {
  const course = await makeCourse({ students: 30, limits: { draw: 'open' } });
  const teacher = await teacherOf(course);
  const { members } = await entering(course);
  const [draws, hears] = members;
  const own = await timesOf(
    hears!.socket,
    (n) => draws!.send({ type: 'draw', stroke: stroke(n) }),
    (payload) => payload.some((e) => e.type === 'drawn'),
  );
  const peer = await startBare();
  const sender = await open(peer.url, {});
  const listeners = await Promise.all(members.map(() => open(peer.url, {})));
  const bare = await timesOf(
    listeners[1]!,
    (n) => sender.emitWithAck('change', [{ type: 'drawn', by: 'abcdefghjkmn', stroke: stroke(n) }]),
    () => true,
  );
  await teacher.send({ type: 'dismiss' });
  for (const socket of [teacher.socket, sender, ...members.map((m) => m.socket), ...listeners])
    socket.disconnect();
  peer.child.kill();
  const row = (p: number, wanted: string): Figure => ({
    what: `a pen's stroke to another page of a class of 30, p${100 * p}`,
    ours: ms(percentile(own, p)),
    peer: 'bare Socket.IO, not stored',
    theirs: ms(percentile(bare, p)),
    ratio: `${(percentile(own, p) / percentile(bare, p)).toFixed(2)} to 1`,
    wanted,
  });
  return [row(0.5, ''), row(0.99, 'at most 100 ms')];
}

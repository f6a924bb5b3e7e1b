import { performance } from 'node:perf_hooks';
import type { Socket } from 'socket.io-client';
import type { StoredEvent } from '@nimble-bell/core/room';
import { makeCourse } from '../../e2e/support/course';
import { entering, startBare, teacherOf } from './room';
import { open } from './roomLine';
import { ms, percentile, type Figure } from './table';

const STUDENTS = 300;
const ROUNDS = 6;

/** Resolves once so many of a kind have been heard. */
function heard(socket: Socket, count: number, of: (payload: unknown) => number): Promise<void> {
  return new Promise((resolve) => {
    let left = count;
    const hear = (payload: unknown) => {
      left -= of(payload);
      if (left > 0) return;
      socket.off('events', hear);
      resolve();
    };
    socket.on('events', hear);
  });
}

const answersIn = (payload: unknown) =>
  (payload as StoredEvent[]).filter((e) => e.type === 'answered').length;

/** A class of 300 answers a question at once: until whoever teaches has every answer, stored and told. */
export async function asked(): Promise<Figure[]> {
  const course = await makeCourse({ students: STUDENTS });
  const teacher = await teacherOf(course);
  const { members } = await entering(course);
  const peer = await startBare();
  const listener = await open(peer.url, {});
  await listener.emitWithAck('listen');
  const bareMembers = await Promise.all(Array.from({ length: STUDENTS }, () => open(peer.url, {})));
  const own: number[] = [];
  const bare: number[] = [];
  const question = { text: 'Which way?', kind: 'yesNo' as const, options: [], right: 0, anonymous: false };
  for (let round = 0; round < ROUNDS; round++) {
    const opened = new Promise<number>((resolve) => {
      const hear = (events: StoredEvent[]) => {
        const one = events.find((e) => e.type === 'asked');
        if (one) resolve(one.seq);
      };
      members.at(-1)!.socket.on('events', hear);
    });
    const began = performance.now();
    await teacher.send({ type: 'ask', question });
    const id = await opened;
    const all = heard(teacher.socket, STUDENTS, answersIn);
    await Promise.all([
      all,
      ...members.map((m, i) => m.send({ type: 'answer', question: id, answer: i % 2 })),
    ]);
    const took = performance.now() - began;
    const bareBegan = performance.now();
    const bareAll = heard(listener, STUDENTS, () => 1);
    await Promise.all([
      bareAll,
      ...bareMembers.map((m, i) => m.emitWithAck('tell', [{ type: 'answered', answer: i % 2 }])),
    ]);
    if (round > 0) {
      own.push(took);
      bare.push(performance.now() - bareBegan);
    }
  }
  await teacher.send({ type: 'dismiss' });
  for (const socket of [teacher.socket, listener, ...members.map((m) => m.socket), ...bareMembers])
    socket.disconnect();
  peer.child.kill();
  return [
    {
      what: `a question to ${STUDENTS}, until all answers are with who teaches, worst of ${own.length}`,
      ours: ms(Math.max(...own)),
      peer: 'bare Socket.IO: as many sent, and told to one',
      theirs: ms(Math.max(...bare)),
      ratio: `${(percentile(own, 0.5) / percentile(bare, 0.5)).toFixed(2)} to 1`,
      wanted: 'at most 2 s',
    },
  ];
}

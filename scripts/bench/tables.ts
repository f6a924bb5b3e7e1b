import { performance } from 'node:perf_hooks';
import type { StoredEvent } from '@nimble-bell/core/room';
import { makeCourse } from '../../e2e/support/course';
import { entering, teacherOf } from './room';
import { ms, type Figure } from './table';

const STUDENTS = 150;
const TABLES = 30;
const ROUNDS = 4;

/** A class of 150 goes to 30 tables: until every page has been told, and has been given the room as it is at its table. */
export async function tables(): Promise<Figure[]> {
  const course = await makeCourse({ students: STUDENTS });
  const teacher = await teacherOf(course);
  const { members } = await entering(course);
  const ids = await Promise.all(
    members.map(async ({ socket }) => {
      const { info } = await socket.emitWithAck('enter', { session: course.session, after: 0 });
      return info.me.member as string;
    }),
  );
  const laid = Array.from({ length: TABLES }, (_, t) => ({
    name: `Table ${t + 1}`,
    members: ids.filter((_, i) => i % TABLES === t),
  }));
  /** As a page does: it hears that it is elsewhere, and asks for the room as it is there. */
  const moved = () =>
    Promise.all(
      members.map(
        ({ socket }) =>
          new Promise<number>((resolve) => {
            const hear = async (events: StoredEvent[]) => {
              if (!events.some((e) => e.type === 'wentTo')) return;
              socket.off('events', hear);
              await socket.emitWithAck('enter', { session: course.session, after: 0 });
              resolve(performance.now());
            };
            socket.on('events', hear);
          }),
      ),
    );
  const there: number[] = [];
  const again: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    for (const [list, command] of [
      [there, { type: 'layTables', tables: laid, seconds: null, open: true }],
      [again, { type: 'endTables', now: true }],
    ] as const) {
      const all = moved();
      const began = performance.now();
      await teacher.send(command as never);
      list.push(Math.max(...(await all)) - began);
    }
  }
  // What it costs to give all of them the room without any move.
  const bareBegan = performance.now();
  await Promise.all(
    members.map(({ socket }) => socket.emitWithAck('enter', { session: course.session, after: 0 })),
  );
  const bare = performance.now() - bareBegan;
  await teacher.send({ type: 'dismiss' });
  for (const socket of [teacher.socket, ...members.map((m) => m.socket)]) socket.disconnect();
  const worst = Math.max(...there, ...again);
  return [
    {
      what: `${STUDENTS} to ${TABLES} tables and back, until each page has its place, worst of ${2 * ROUNDS}`,
      ours: ms(worst),
      peer: 'all of them given the room, without a move',
      theirs: ms(bare),
      ratio: `${(worst / bare).toFixed(2)} to 1`,
      wanted: 'at most 3 s',
    },
  ];
}

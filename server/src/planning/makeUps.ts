import { Worker } from 'node:worker_threads';
import type { MakeUpQuestion, MakeUps } from '@nimble-bell/core/clashes';
import type { Context } from '../context';
import { courseById, seriesById, type SessionRow } from '../courses/store';
import { AppError } from '../errors';
import { bellTimesOf } from '../terms/store';
import { collegeAround, peopleOf } from './clashes';
import { zonesOf } from './store';

const PATIENCE_MS = 20_000;

/** The best slots to make up for a lost session, over everyone's sessions in the college, and the map of a week. */
export async function makeUpsFor(
  ctx: Context,
  lost: SessionRow,
  noticeHours: number,
  week: string | null,
): Promise<MakeUps> {
  return rank({ question: await questionFor(ctx, lost, noticeHours), week });
}

export async function questionFor(
  ctx: Context,
  lost: SessionRow,
  noticeHours: number,
): Promise<MakeUpQuestion> {
  const now = ctx.now();
  const course = (await courseById(ctx.db, lost.courseId))!;
  const series = (await seriesById(ctx.db, lost.seriesId))!;
  const { enrolments, timed } = await collegeAround(ctx.db, lost.courseId, now);
  const own = enrolments.filter((e) => e.courseId === lost.courseId);
  const needed = new Set(peopleOf(series, own));
  const zones = new Map((await zonesOf(ctx.db, lost.courseId)).map((p) => [p.id, p.zone]));
  const busy = new Map<string, { startsAt: number; endsAt: number }[]>();
  for (const { people, sessions } of timed)
    for (const person of people)
      if (needed.has(person)) {
        const list = busy.get(person) ?? [];
        for (const { startsAt, endsAt } of sessions) list.push({ startsAt, endsAt });
        busy.set(person, list);
      }
  const attendees = (role: (r: string) => boolean) =>
    own
      .filter((e) => needed.has(e.personId) && role(e.role))
      .map((e) => ({ zone: zones.get(e.personId) ?? course.term.zone, busy: busy.get(e.personId) ?? [] }));
  return {
    term: course.term,
    minutes: lost.minutes,
    now,
    noticeHours,
    periods: (await bellTimesOf(ctx.db)).flatMap((b) => b.periods),
    lost: { startsAt: lost.startsAt },
    teachers: attendees((r) => r !== 'student'),
    students: attendees((r) => r === 'student'),
  };
}

function rank(asked: { question: MakeUpQuestion; week: string | null }): Promise<MakeUps> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./makeUpWorker.js', import.meta.url), { workerData: asked });
    const late = setTimeout(() => {
      reject(new AppError('internal', 'Ranking the slots took too long.'));
      void worker.terminate();
    }, PATIENCE_MS);
    worker.once('message', (found: MakeUps) => resolve(found));
    worker.once('error', reject);
    worker.once('exit', () => {
      clearTimeout(late);
      reject(new AppError('internal'));
    });
  });
}

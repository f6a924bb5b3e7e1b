import type { CollegeOutcome } from '@nimble-bell/core/api';
import type { PoolConnection } from 'mysql2/promise';
import { coursesByIds, coursesForUpdate, seriesByIds, type SeriesRow } from '../courses/store';
import { bellTimesOf } from '../terms/store';
import { conclude, type ChangedPlan } from './change';
import { relaid, type Relaid } from './laySeries';
import { diffOf, isEmpty } from './snapshot/diff';
import {
  deleteSessions,
  insertOwned,
  snapshots,
  writeOwned,
  type SessionRecord,
  type Snapshot,
} from './snapshot/store';
import { stepAside } from './store';

export interface LayingAnew {
  by: string;
  words: string;
  now: number;
  tellAt: number;
  /** Nothing is written: it is only to be seen. */
  foreseen: boolean;
}

/**
 * Lays the named series of any courses anew in the caller's transaction, each course's change kept in its own history. The
 * courses are read, worked out, written and told together: forty of them are as many questions as one.
 */
export async function layCourses(
  db: PoolConnection,
  ids: readonly string[],
  how: LayingAnew,
): Promise<CollegeOutcome> {
  if (!ids.length) return { courses: [] };
  const named = new Set((await seriesByIds(db, ids)).map((s) => s.courseId));
  await coursesForUpdate(db, [...named]);
  // Read once the courses' turn has come.
  const series = await seriesByIds(db, ids);
  const courses = await coursesByIds(db, [...named]);
  const plans = await snapshots(db, [...named]);
  const bells = await bellTimesOf(db);
  const changed: ChangedPlan[] = [];
  const work: { course: string; laid: Relaid }[] = [];
  for (const { id: courseId, term } of courses) {
    const before = plans.get(courseId)!;
    const after: Snapshot = { ...before, sessions: new Map(before.sessions) };
    for (const s of series.filter((x) => x.courseId === courseId)) {
      const frozen = s.publishedAt === null ? null : how.now;
      const laid = relaid(ofSeries(before, s), s, term, bells, frozen);
      for (const id of laid.removed) after.sessions.delete(id);
      for (const record of [...laid.changed, ...laid.added]) after.sessions.set(record.id, record);
      work.push({ course: courseId, laid });
    }
    const diff = diffOf(before, after);
    if (!isEmpty(diff)) changed.push({ courseId, term, before, after, words: how.words, diff });
  }
  if (!how.foreseen) await write(db, work);
  const done = await conclude(db, changed, how);
  return {
    courses: courses.flatMap(({ id, code, title }) => {
      const own = done.find((d) => d.courseId === id);
      return own?.sessions.length ? [{ id, code, title, sessions: own.sessions, told: own.told }] : [];
    }),
  };
}

/** A series' sessions by date. */
const ofSeries = (plan: Snapshot, { id }: SeriesRow): SessionRecord[] =>
  [...plan.sessions.values()]
    .filter((s) => s.seriesId === id)
    .sort((a, b) => (a.date === b.date ? a.take - b.take : a.date < b.date ? -1 : 1));

/** Writes what was worked out, all courses together. */
async function write(db: PoolConnection, work: readonly { course: string; laid: Relaid }[]) {
  const removed = work.flatMap(({ laid }) => laid.removed);
  const aside = work.flatMap(({ laid }) => laid.aside);
  const owned = (part: 'changed' | 'added') =>
    work.flatMap(({ course, laid }) => laid[part].map((record) => ({ course, record })));
  if (removed.length) await deleteSessions(db, 'id IN (?)', [removed]);
  if (aside.length) await stepAside(db, aside);
  await writeOwned(db, owned('changed'));
  await insertOwned(db, owned('added'));
}

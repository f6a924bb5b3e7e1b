import type { SeriesRow } from '../courses/store';
import type { SeriesRecord, SessionRecord } from '../planning/snapshot/store';

/** A course's plan in memory, behind the names of the stores that edits ask: for tests without a database. */
export interface MemoryPlan {
  series: Map<string, SeriesRecord & { courseId: string }>;
  sessions: Map<string, SessionRecord & { courseId: string }>;
  members: Map<string, { id: string; name: string; role: string; group: string | null; courseId: string }>;
}

export const plan: MemoryPlan = { series: new Map(), sessions: new Map(), members: new Map() };

export function emptyPlan() {
  for (const part of Object.values(plan)) part.clear();
}

const asRow = (s: SeriesRecord & { courseId: string }) =>
  ({ ...s, sequence: 0, listed: false }) as unknown as SeriesRow;
const ofSeries = (id: string) => [...plan.sessions.values()].filter((s) => s.seriesId === id);
const over = (s: SessionRecord) => s.state === 'live' || s.state === 'held';
const membersOf = (course: string) => [...plan.members.values()].filter((m) => m.courseId === course);
type Nobody = unknown;

/** What each condition means that sessions are taken away by. */
const WHICH: Record<string, (s: SessionRecord, values: readonly unknown[]) => boolean> = {
  'id IN (?)': (s, [ids]) => (ids as string[]).includes(s.id),
  'series_id = ?': (s, [id]) => s.seriesId === id,
  'series_id = ? AND ends_at > ?': (s, [id, now]) => s.seriesId === id && s.endsAt > (now as number),
};

const removeIfEmpty = async (_db: Nobody, id: string) => {
  if (!ofSeries(id).length) plan.series.delete(id);
};
const deleteSessions = async (_db: Nobody, where: string, values: readonly unknown[]) => {
  for (const s of [...plan.sessions.values()])
    if (!over(s) && WHICH[where]!(s, values)) plan.sessions.delete(s.id);
};
const write = (course: string, s: SessionRecord) => plan.sessions.set(s.id, { ...s, courseId: course });

export const planningStore = {
  deleteSessions,
  removeIfEmpty,
  removeSeries: async (db: Nobody, id: string) => {
    await deleteSessions(db, 'series_id = ?', [id]);
    await removeIfEmpty(db, id);
  },
  writeSeries: async (_db: Nobody, courseId: string, s: SeriesRecord) =>
    void plan.series.set(s.id, { ...s, courseId }),
  writeSessions: async (_db: Nobody, course: string, all: readonly SessionRecord[]) => {
    for (const s of all) write(course, s);
  },
  insertSessions: async (_db: Nobody, course: string, all: readonly SessionRecord[]) => {
    for (const s of all) {
      const same = ofSeries(s.seriesId).some((o) => o.date === s.date && o.take === s.take);
      if (same) throw new Error(`Duplicate entry ${s.seriesId} ${s.date} ${s.take}`);
      write(course, s);
    }
  },
  stepAside: async (_db: Nobody, ids: readonly string[]) => {
    for (const id of ids) {
      const s = plan.sessions.get(id)!;
      write(s.courseId, { ...s, take: s.take + 1000 });
    }
  },
  sessionRecords: async (_db: Nobody, series: string) =>
    ofSeries(series)
      .map(({ courseId, ...s }) => s)
      .sort((a, b) => (a.date === b.date ? a.take - b.take : a.date < b.date ? -1 : 1)),
  wasHeld: async (_db: Nobody, series: string) => ofSeries(series).find(over) ?? null,
  isLive: async (_db: Nobody, series: string) => ofSeries(series).find((s) => s.state === 'live') ?? null,
  placeOfSession: async (_db: Nobody, id: string) => plan.sessions.get(id) ?? null,
  courseOfSession: async (_db: Nobody, id: string) => plan.sessions.get(id) ?? null,
  renameSession: async (_db: Nobody, title: string | null, id: string) => {
    plan.sessions.get(id)!.title = title;
  },
  publishSeries: async (_db: Nobody, now: number, ids: readonly string[]) => {
    for (const id of ids) plan.series.get(id)!.publishedAt ??= now;
  },
  publishOne: async (_db: Nobody, now: number, id: string) => {
    plan.series.get(id)!.publishedAt = now;
  },
  teachingAmong: async (_db: Nobody, course: string, ids: readonly string[]) =>
    membersOf(course).filter((m) => m.role !== 'student' && ids.includes(m.id)),
  memberName: async (_db: Nobody, id: string, course: string) =>
    membersOf(course).find((m) => m.id === id) ?? null,
  setGroup: async (_db: Nobody, group: string | null, id: string) => {
    plan.members.get(id)!.group = group;
  },
  clearGroups: async (_db: Nobody, course: string) => {
    for (const m of membersOf(course)) if (m.role === 'student') m.group = null;
  },
  putInGroup: async (_db: Nobody, group: string, ids: readonly string[]) => {
    for (const id of ids) plan.members.get(id)!.group = group;
  },
};

export const coursesStore = {
  studentsOf: async (_db: Nobody, course: string) => membersOf(course).filter((m) => m.role === 'student'),
  seriesById: async (_db: Nobody, id: string) => {
    const found = plan.series.get(id);
    return found ? asRow(found) : null;
  },
  seriesOf: async (_db: Nobody, course: string) =>
    [...plan.series.values()].filter((s) => s.courseId === course).map(asRow),
};

export const termsStore = { bellTimesOf: async () => [] };

export const reuseStore = {
  sessionOn: async (_db: Nobody, series: string, date: string) =>
    ofSeries(series).find((s) => s.date === date) ?? null,
};

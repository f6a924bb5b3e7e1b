import {
  isStanding,
  type BellTimes,
  type MeetingPattern,
  type SeriesKind,
  type Term,
} from '@nimble-bell/core/api';
import {
  lay,
  periodsFor,
  sessionsOf,
  toEpochDay,
  toInstant,
  type LaidSession,
} from '@nimble-bell/core/calendar';
import { newId } from '../context';
import type { Db } from '../db/pool';
import { bellTimesOf } from '../terms/store';
import {
  deleteSessions,
  insertSessions,
  sessionRecords,
  writeSessions,
  type SessionRecord,
} from './snapshot/store';
import { retimeStanding, standingSessions, stepAside } from './store';

export interface Laying {
  id: string;
  courseId: string;
  kind: SeriesKind;
  pattern: MeetingPattern | null;
}

/**
 * Lays a series' sessions as rows, over those it has (see `lay` in the core). `frozenUntil` keeps what lies before it; null
 * lays the whole term, its past too.
 */
export async function laySeries(db: Db, series: Laying, term: Term, frozenUntil: number | null) {
  if (isStanding(series.kind)) return layStanding(db, series, term);
  const bells: BellTimes[] = await bellTimesOf(db);
  const pattern = series.pattern!;
  const planned = sessionsOf(term, pattern, undefined, periodsFor(pattern, bells)).sessions;
  const existing = await sessionRecords(db, series.id);
  const byId = new Map(existing.map((s) => [s.id, s]));
  const laid = lay(existing as LaidSession[], planned, pattern.lingerMinutes, frozenUntil);
  if (laid.removed.length) await deleteSessions(db, 'id IN (?)', [laid.removed.map((s) => s.id)]);
  const takes = new Takes(existing.filter((e) => laid.kept.some((s) => s.id === e.id && s.date === e.date)));
  const changed = laid.kept
    .map((s): SessionRecord => {
      const known = byId.get(s.id)!;
      const take = s.date === known.date ? known.take : takes.next(s.date);
      return { ...known, ...s, own: [...s.own], take };
    })
    .filter((s) => JSON.stringify(s) !== JSON.stringify(byId.get(s.id)));
  // Dates change places: first out of one another's way, then to where they belong.
  for (const s of changed.filter((c) => c.date !== byId.get(c.id)!.date)) await stepAside(db, s.id);
  await writeSessions(db, series.courseId, changed);
  await insertSessions(
    db,
    series.courseId,
    laid.added.map((s) => ({
      ...s,
      own: [...s.own],
      id: newId(),
      seriesId: series.id,
      take: takes.next(s.date),
    })),
  );
}

/** Sessions of one series and date are told apart by their take: those that stay on a date keep theirs. */
class Takes {
  readonly #next = new Map<string, number>();

  constructor(staying: readonly SessionRecord[]) {
    for (const { date, take } of staying) this.#next.set(date, Math.max(this.#next.get(date) ?? 0, take + 1));
  }

  next(date: string): number {
    const take = this.#next.get(date) ?? 0;
    this.#next.set(date, take + 1);
    return take;
  }
}

/** A room without dates stands ready from the term's first day to its last. */
async function layStanding(db: Db, series: Laying, term: Term) {
  const startsAt = toInstant(term.zone, toEpochDay(term.firstDay), 0);
  const endsAt = toInstant(term.zone, toEpochDay(term.lastDay) + 1, 0) - 60_000;
  const found = await standingSessions(db, series.id);
  if (found.length) {
    await retimeStanding(db, startsAt, endsAt, series.id);
    return;
  }
  await insertSessions(db, series.courseId, [
    {
      id: newId(),
      seriesId: series.id,
      date: term.firstDay,
      take: 0,
      number: 1,
      startsAt,
      endsAt,
      lingerMinutes: 0,
      state: 'planned',
      title: null,
      own: [],
      replaces: null,
      record: null,
    },
  ]);
}

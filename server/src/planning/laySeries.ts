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
import { stepAside } from './store';

export interface Laying {
  id: string;
  courseId: string;
  kind: SeriesKind;
  pattern: MeetingPattern | null;
}

/** What laying a series anew does to its rows. */
export interface Relaid {
  removed: string[];
  /** Those that change dates: first out of one another's way, then to where they belong. */
  aside: string[];
  changed: SessionRecord[];
  added: SessionRecord[];
}

/**
 * Lays a series' sessions as rows, over those it has (see `lay` in the core). `frozenUntil` keeps what lies before it; null
 * lays the whole term, its past too.
 */
export async function laySeries(db: Db, series: Laying, term: Term, frozenUntil: number | null) {
  const existing = await sessionRecords(db, series.id);
  const { removed, aside, changed, added } = relaid(
    existing,
    series,
    term,
    await bellTimesOf(db),
    frozenUntil,
  );
  if (removed.length) await deleteSessions(db, 'id IN (?)', [removed]);
  if (aside.length) await stepAside(db, aside);
  await writeSessions(db, series.courseId, changed);
  await insertSessions(db, series.courseId, added);
}

/** The same without a row being touched: what would be written. */
export function relaid(
  existing: readonly SessionRecord[],
  series: Laying,
  term: Term,
  bells: readonly BellTimes[],
  frozenUntil: number | null,
): Relaid {
  if (isStanding(series.kind)) return standing(existing, series, term);
  const pattern = series.pattern!;
  const planned = sessionsOf(term, pattern, undefined, periodsFor(pattern, bells)).sessions;
  const byId = new Map(existing.map((s) => [s.id, s]));
  const laid = lay([...existing] as LaidSession[], planned, pattern.lingerMinutes, frozenUntil);
  const takes = new Takes(existing.filter((e) => laid.kept.some((s) => s.id === e.id && s.date === e.date)));
  const changed = laid.kept
    .map((s): SessionRecord => {
      const known = byId.get(s.id)!;
      const take = s.date === known.date ? known.take : takes.next(s.date);
      return { ...known, ...s, own: [...s.own], take };
    })
    .filter((s) => JSON.stringify(s) !== JSON.stringify(byId.get(s.id)));
  const added = laid.added.map((s) => ({
    ...s,
    own: [...s.own],
    id: newId(),
    seriesId: series.id,
    take: takes.next(s.date),
  }));
  return {
    removed: laid.removed.map((s) => s.id),
    aside: changed.filter((c) => c.date !== byId.get(c.id)!.date).map((c) => c.id),
    changed,
    added,
  };
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
function standing(existing: readonly SessionRecord[], series: Laying, term: Term): Relaid {
  const startsAt = toInstant(term.zone, toEpochDay(term.firstDay), 0);
  const endsAt = toInstant(term.zone, toEpochDay(term.lastDay) + 1, 0) - 60_000;
  const rooms = existing.filter((s) => s.state !== 'held');
  const changed = rooms
    .filter((s) => s.state === 'planned' && (s.startsAt !== startsAt || s.endsAt !== endsAt))
    .map((s) => ({ ...s, startsAt, endsAt }));
  if (rooms.length) return { removed: [], aside: [], changed, added: [] };
  const room: SessionRecord = {
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
  };
  return { removed: [], aside: [], changed, added: [room] };
}

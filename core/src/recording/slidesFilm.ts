import { CLASS, slidesAt, type Frame, type PageMark, type StoredEvent } from '../room/index';
import type { Stretch } from './mixing';
import { momentsOf } from './moments';
import { Replay } from './replay';
import type { Part } from './timeline';

/** A page as the class looked at it. */
export interface PageLooked {
  deck: string;
  page: number;
  frame: Frame;
  marks: readonly PageMark[];
}

/** The pages of a recording: what is looked at from a moment on, ms, and when any is. */
export interface SlidesFilm {
  frames: { at: number; on: PageLooked }[];
  shown: Stretch[];
}

const CHANGES: ReadonlySet<StoredEvent['type']> = new Set([
  ...(['slidesShown', 'slideTurned', 'slideFramed', 'slidesPutAway'] as const),
  ...(['slideMarked', 'marksCleared', 'frontSet', 'presenting', 'workShown', 'filmShown'] as const),
  ...(['tablesLaid', 'tablesCleared', 'dismissed'] as const),
]);

const same = (a: PageLooked, b: PageLooked): boolean =>
  a.deck === b.deck &&
  a.page === b.page &&
  JSON.stringify(a.frame) === JSON.stringify(b.frame) &&
  a.marks.length === b.marks.length &&
  a.marks.every((m, i) => m.seq === b.marks[i]!.seq);

/** The pages that the class had before it, as its events and the parts of a recording of `length` ms made them. */
export function slidesFilm(
  events: readonly StoredEvent[],
  parts: readonly Part[],
  length: number,
): SlidesFilm {
  const replay = new Replay(events, parts);
  const changes = events.filter((e) => CHANGES.has(e.type));
  const film: SlidesFilm = { frames: [], shown: [] };
  let open: Stretch | null = null;
  for (const at of momentsOf(changes, parts, length)) {
    const { slides, stage } = replay.at(at);
    const on = slidesAt({ slides }, CLASS);
    // What the class had put before it otherwise is looked at instead.
    if (!on || (stage.front[CLASS] ?? 'picture') !== 'slides') {
      if (open) open.until = at;
      open = null;
      continue;
    }
    const { deck, page, frame } = on;
    const marks = slides.marks.filter((m) => m.place === CLASS && m.deck === deck.id && m.page === page);
    const looked: PageLooked = { deck: deck.id, page, frame, marks };
    const last = film.frames.at(-1);
    if (!last || !same(last.on, looked)) film.frames.push({ at, on: looked });
    if (!open) film.shown.push((open = { from: at, until: length }));
  }
  return { ...film, shown: film.shown.filter((s) => s.until > s.from) };
}

import { CLASS, slidesAt, type Frame, type PageMark, type StoredEvent } from '../room/index';
import type { Stretch } from './mixing';
import { Replay } from './replay';
import { positionOf, type Part } from './timeline';

/** What is looked at is drawn anew so often at most, ms; and in a long class so seldom that these are enough. */
const STEP_MS = 500;
const MOST = 1200;

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
  const step = Math.max(STEP_MS, length / MOST);
  const moments = new Set<number>();
  for (const event of events) {
    if (!CHANGES.has(event.type)) continue;
    const at = Math.max(0, positionOf(parts, event.at));
    if (at < length) moments.add(Math.min(length, Math.ceil(at / step) * step));
  }
  const film: SlidesFilm = { frames: [], shown: [] };
  let open: Stretch | null = null;
  for (const at of [...moments].sort((a, b) => a - b)) {
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

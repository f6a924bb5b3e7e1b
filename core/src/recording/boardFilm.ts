import { CLASS, type BoardState, type OnBoard, type StoredEvent } from '../room/index';
import type { Stretch } from './mixing';
import { Replay } from './replay';
import { positionOf, type Part } from './timeline';

/** A board that nobody draws on gives way so long after its last mark, ms. */
export const STAYS_MS = 60_000;
/** A board is drawn anew so often at most, ms; and in a long class so seldom that these are enough. */
const STEP_MS = 500;
const MOST = 1200;

/** The class's board as it stands from a moment of a recording on, ms. */
export interface BoardFrame {
  at: number;
  on: OnBoard;
  /** What is on it that was not in the frame before; null where it was cleared between them. */
  added: OnBoard | null;
}

/** The board of a recording: what is drawn of it, and when it is looked at. */
export interface BoardFilm {
  frames: BoardFrame[];
  /** From its first mark until it is cleared, or until a minute after its last one. */
  shown: Stretch[];
}

const MARKS: ReadonlySet<StoredEvent['type']> = new Set([
  ...(['drawn', 'textPut', 'boardCleared'] as const),
  ...(['workShown', 'workPutBack', 'tablesLaid'] as const),
]);

/** What the class has before it: its own board, or what was made at a table. */
const ofClass = ({ strokes, texts, shown }: BoardState): OnBoard =>
  shown ?? {
    strokes: strokes.filter((s) => s.place === CLASS),
    texts: texts.filter((t) => t.place === CLASS),
  };

const NOTHING: OnBoard = { strokes: [], texts: [] };
type Marks = readonly { seq: number }[];

/** What of a board was not there before; null where what was there is gone. */
function addedTo(before: OnBoard, on: OnBoard): OnBoard | null {
  const goneOf = (was: Marks, is: Marks) => was.length > 0 && was[0]!.seq !== is[0]?.seq;
  if (goneOf(before.strokes, on.strokes) || goneOf(before.texts, on.texts)) return null;
  return { strokes: on.strokes.slice(before.strokes.length), texts: on.texts.slice(before.texts.length) };
}

/** The class's board, as its events and the parts of a recording of `length` ms made it. */
export function boardFilm(events: readonly StoredEvent[], parts: readonly Part[], length: number): BoardFilm {
  const replay = new Replay(events, parts);
  const step = Math.max(STEP_MS, length / MOST);
  const moments = new Set<number>();
  for (const event of events) {
    if (!MARKS.has(event.type) || ('place' in event && event.place !== CLASS)) continue;
    const at = Math.max(0, positionOf(parts, event.at));
    // What is drawn within one step is there at its end; what came before the recording is there from its beginning.
    if (at < length) moments.add(Math.min(length, Math.ceil(at / step) * step));
  }
  const film: BoardFilm = { frames: [], shown: [] };
  for (const at of [...moments].sort((a, b) => a - b)) {
    const on = ofClass(replay.at(at).board);
    film.frames.push({ at, on, added: addedTo(film.frames.at(-1)?.on ?? NOTHING, on) });
    const last = film.shown.at(-1);
    const open = last !== undefined && last.until >= at;
    if (open) last.until = at;
    if (on.strokes.length + on.texts.length === 0) continue;
    const until = Math.min(length, at + STAYS_MS);
    if (open) last.until = until;
    else film.shown.push({ from: at, until });
  }
  return film;
}

import {
  CLASS,
  onBoard,
  pointsOf,
  type BoardState,
  type Mark,
  type OnBoard,
  type StoredEvent,
} from '../room/index';
import type { Stretch } from './mixing';
import { momentsOf } from './moments';
import { Replay } from './replay';
import type { Part } from './timeline';
import { MARKED, WORK_SHOWN } from './drawn';

/** A board that nobody draws on gives way so long after its last mark, ms. */
export const STAYS_MS = 60_000;
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

const MARKS: ReadonlySet<StoredEvent['type']> = new Set([...MARKED, ...WORK_SHOWN, 'tablesLaid']);

/** What the class has before it: its own board, or one that is shown to it. */
const ofClass = (board: BoardState): OnBoard => board.shown ?? onBoard(board, CLASS);

const NOTHING: OnBoard = { marks: [], ground: 'plain' };

const isSame = (a: Mark, b: Mark | undefined): boolean => {
  if (a === b) return true;
  const [[ax, ay], [bx, by]] = [pointsOf(a), b ? pointsOf(b) : []];
  return a.seq === b?.seq && ax === bx && ay === by;
};

/** What of a board was not there before; null where that is not only more of it, or covers what was there. */
function addedTo(before: OnBoard, on: OnBoard): OnBoard | null {
  if (before.ground !== on.ground || !before.marks.every((m, i) => isSame(m, on.marks[i]))) return null;
  const marks = on.marks.slice(before.marks.length);
  const covers = marks.some((m) => m.kind === 'text' && m.slip) || on.marks.some((m) => m.kind === 'picture');
  return covers ? null : { marks, ground: on.ground };
}

/** The class's board, as its events and the parts of a recording of `length` ms made it. */
export function boardFilm(events: readonly StoredEvent[], parts: readonly Part[], length: number): BoardFilm {
  const replay = new Replay(events, parts);
  const marks = events.filter((e) => MARKS.has(e.type) && !('place' in e && e.place !== CLASS));
  const film: BoardFilm = { frames: [], shown: [] };
  for (const at of momentsOf(marks, parts, length)) {
    const on = ofClass(replay.at(at).board);
    film.frames.push({ at, on, added: addedTo(film.frames.at(-1)?.on ?? NOTHING, on) });
    const last = film.shown.at(-1);
    const open = last !== undefined && last.until >= at;
    if (open) last.until = at;
    if (on.marks.length === 0) continue;
    const until = Math.min(length, at + STAYS_MS);
    if (open) last.until = until;
    else film.shown.push({ from: at, until });
  }
  return film;
}

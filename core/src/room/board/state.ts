import type { Place } from '../kernel/schema';
import type { BoardText, Stroke } from './schema';

export interface BoardStroke extends Stroke {
  seq: number;
  by: string;
  place: Place;
}

export interface PutText extends BoardText {
  seq: number;
  by: string;
  place: Place;
}

/** What stands on a board. */
export interface OnBoard {
  texts: readonly PutText[];
  strokes: readonly BoardStroke[];
}

/** What was made at a table, as it is shown to the class. */
export interface ShownWork extends OnBoard {
  from: Place;
  title: string;
}

/** The boards of all places; and what was made at one, while it is shown. */
export interface BoardState extends OnBoard {
  shown: ShownWork | null;
}

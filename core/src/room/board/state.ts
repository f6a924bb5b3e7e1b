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

export interface BoardState {
  texts: readonly PutText[];
  strokes: readonly BoardStroke[];
}

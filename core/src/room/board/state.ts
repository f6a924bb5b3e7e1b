import type { Place } from '../kernel/schema';
import type { Stroke } from './schema';

export interface BoardStroke extends Stroke {
  seq: number;
  by: string;
  place: Place;
}

export interface BoardState {
  strokes: readonly BoardStroke[];
}

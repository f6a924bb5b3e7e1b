import type { Place } from '../kernel/schema';
import type { BoardText, Picture, Shape, Stroke } from './schema';

export const SHAPES = ['line', 'arrow', 'box', 'oval'] as const;

/** What a side is ruled with before anybody draws on it. */
export const GROUNDS = ['plain', 'squared', 'ruled', 'axes'] as const;
export type Ground = (typeof GROUNDS)[number];

/** A board has so many sides at most. */
export const MOST_SIDES = 20;
/** So many marks are taken off or moved together. */
export const MOST_AT_ONCE = 200;
/** So many of those that were taken off last can be put back. */
export const MOST_OFF = 200;

/** So many pictures stand on the board of a place, and on all boards of a room. */
export const MOST_PICTURES = { place: 4, room: 24 };

/** One thing on a board, by the number of the event that put it there. */
export type Mark = { seq: number; by: string; place: Place; side: number } & (
  | ({ kind: 'stroke' } & Stroke)
  | ({ kind: 'text' } & BoardText)
  | ({ kind: 'shape' } & Shape)
  | ({ kind: 'picture' } & Picture)
);
export type BoardStroke = Extract<Mark, { kind: 'stroke' }>;
export type PutText = Extract<Mark, { kind: 'text' }>;
export type PutShape = Extract<Mark, { kind: 'shape' }>;
export type PutPicture = Extract<Mark, { kind: 'picture' }>;

/** What stands on one side of a board, in the order in which it was put there. */
export interface OnBoard {
  marks: readonly Mark[];
  ground: Ground;
}

/** A board as it is shown to the class: a table's, or somebody's own. */
export interface ShownWork extends OnBoard {
  /** Empty to those who are not told whose it is. */
  from: Place;
  title: string;
  /** Only those who teach are told whose it is. */
  unnamed: boolean;
}

/** The boards of all places. */
export interface BoardState {
  marks: readonly Mark[];
  /** The side that is turned to everybody, where it is not the first. */
  turned: Readonly<Record<Place, number>>;
  /** The grounds of sides that are not plain, by place and side. */
  grounds: Readonly<Record<string, Ground>>;
  /** What was taken off, the last at the end: it can be put back as it was, by the same hand. */
  off: readonly Mark[];
  /** What was cleared last, by place: it can be put back. */
  cleared: Readonly<Record<Place, readonly Mark[]>>;
  /** Whether everybody has a board of their own. */
  given: boolean;
  /** A board that is shown to the class. */
  shown: ShownWork | null;
}

import type { Place } from '../kernel/schema';

/** The longest line, in characters. */
export const LONGEST_LINE = 200;
/** So many of the latest of each place are at hand. */
export const LINES_AT_HAND = 40;

/** What was said aloud, written down. */
export interface CaptionLine {
  seq: number;
  at: number;
  /** Where it was said. */
  place: Place;
  by: string;
  text: string;
  /** A program heard it: `by` is who said it, and it may be wrong. */
  heard?: true | undefined;
}

export interface CaptionsState {
  /** Who writes down what is said, and so may: by member. */
  writers: readonly string[];
  lines: readonly CaptionLine[];
  /** A program writes down what it hears. */
  listens: boolean;
}

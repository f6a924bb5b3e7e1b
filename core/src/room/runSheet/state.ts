import type { CuedSegment } from './schema';

/** A segment that was held: planned minutes, and when it began and ended. */
export interface HeldSegment {
  title: string;
  minutes: number;
  from: number;
  /** Null while it is on. */
  until: number | null;
}

export interface RunSheetState {
  segments: readonly CuedSegment[];
  /** Which of them is on; null before the first cue. */
  at: number | null;
  /** Since when, an instant. */
  since: number | null;
  /** Whether they follow one another by the clock. */
  byClock: boolean;
  held: readonly HeldSegment[];
}

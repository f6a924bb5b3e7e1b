/** The longest time that is counted down, s: four hours. */
export const LONGEST_TIME_S = 14_400;

/** A timer or a stopwatch that everybody in the room sees. Instants and lengths in ms. */
export interface Timer {
  /** What the time is for; empty where it was not said. */
  what: string;
  /** Since when it runs: an instant, later by whatever time it was held. */
  from: number;
  /** How long until the bell; null counts up. */
  length: number | null;
  /** Since when it is held; null while it runs. */
  heldAt: number | null;
  /** The run sheet began it: it goes with its part. */
  bySheet: boolean;
}

export interface TimerState {
  on: Timer | null;
  /** When the bell of one rang last. */
  rangAt: number | null;
}

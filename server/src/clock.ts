/** Less than this is not worth moving for, ms; and who begins more than this before what has been, means it. */
const LEAST_MS = 50;
const MOST_MS = 86_400_000;

/**
 * The machine's clock, as long as a program runs: it goes on evenly, whatever the machine's own is put to in the middle of a
 * class. Between classes it is put right.
 */
export class SteadyClock {
  #base: number;

  constructor(
    readonly wall: () => number = () => Date.now(),
    readonly even: () => number = () => performance.now(),
  ) {
    this.#base = wall() - even();
  }

  /** Instant, ms. */
  now(): number {
    return Math.round(this.#base + this.even());
  }

  /** Goes by the machine's clock again, where nothing is held that goes by this one. Gives by how much it was moved, ms. */
  follow(held: boolean): number {
    const apart = this.wall() - this.now();
    if (held || Math.abs(apart) < LEAST_MS) return 0;
    this.#base += apart;
    return apart;
  }

  /** What has been is not before: it begins at this instant at least. */
  startAt(instant: number): void {
    const before = instant - this.now();
    if (before > 0 && before < MOST_MS) this.#base += before;
  }
}

/** How much one member may send: so many at once, and so many a second for good. */
export interface Rate {
  burst: number;
  perSecond: number;
}

/**
 * Commands are a person's own doing; strokes and signals follow a hand on a board; a picture is longer than any of them.
 * Entering reads who somebody is and the whole room for them: a page does so when it comes, comes back, or sees otherwise.
 */
export const RATES = {
  commands: { burst: 60, perSecond: 12 },
  strokes: { burst: 60, perSecond: 30 },
  signals: { burst: 40, perSecond: 25 },
  pictures: { burst: 6, perSecond: 1 / 20 },
  entries: { burst: 20, perSecond: 4 },
} satisfies Record<string, Rate>;
export type Allowed = keyof typeof RATES;

/** What each member, or line, has left, by what it is for. `now` is ms of a clock that only goes forward. */
export class Allowance {
  readonly #left = new Map<string, { left: number; at: number }>();

  /** Takes one, where there is one left. */
  take(whose: string, what: Allowed, now: number): boolean {
    const { burst, perSecond } = RATES[what];
    const key = `${what} ${whose}`;
    const known = this.#left.get(key) ?? { left: burst, at: now };
    const left = Math.min(burst, known.left + ((now - known.at) / 1000) * perSecond);
    this.#left.set(key, { left: left >= 1 ? left - 1 : left, at: now });
    return left >= 1;
  }

  forget(whose: string) {
    for (const what of Object.keys(RATES)) this.#left.delete(`${what} ${whose}`);
  }
}

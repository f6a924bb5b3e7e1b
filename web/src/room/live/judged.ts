import type { Line } from '@nimble-bell/core/api';

/** What was measured of a connection since the time before. */
export interface Sample {
  /** Of what was to come, or to go, how much was lost, 0 to 1; the worse of both. */
  lost: number;
  /** There and back, ms. */
  roundTrip: number;
}

/** From so much on a connection is weak, and poor. */
const WEAK: Sample = { lost: 0.05, roundTrip: 500 };
const POOR: Sample = { lost: 0.15, roundTrip: 1200 };
/** So many in a row make it worse, and better: what comes and goes is not said each time. */
const WORSE_AFTER = 2;
const BETTER_AFTER = 4;

const RANK: Record<Line, number> = { good: 0, weak: 1, poor: 2 };

const lineOf = ({ lost, roundTrip }: Sample): Line => {
  const reaches = (limit: Sample) => lost >= limit.lost || roundTrip >= limit.roundTrip;
  return reaches(POOR) ? 'poor' : reaches(WEAK) ? 'weak' : 'good';
};

/** How a connection is, by what was measured of it lately. */
export class Judge {
  line: Line = 'good';
  #seen: Line = 'good';
  #times = 0;

  take(sample: Sample): Line {
    const seen = lineOf(sample);
    this.#times = seen === this.#seen ? this.#times + 1 : 1;
    this.#seen = seen;
    const enough = RANK[seen] > RANK[this.line] ? WORSE_AFTER : BETTER_AFTER;
    if (seen !== this.line && this.#times >= enough) this.line = seen;
    return this.line;
  }
}

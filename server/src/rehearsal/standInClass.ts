import { Mind, type Prompt, type StandIn } from '@nimble-bell/core/rehearsal';
import { StandInLine } from './line';

/** What a class of stand-ins is told. Instants and times in ms. */
export type ToClass =
  | {
      do: 'begin';
      url: string;
      session: string;
      seed: number;
      /** How long ago the rehearsal began: who was to come by now comes at once. */
      since: number;
      standIns: { self: StandIn; link: string }[];
    }
  | { do: 'prompt'; what: Prompt };

/** What it says now and then. */
export interface OfClass {
  refused: number;
}

const BEAT_MS = 1000;
/** Those who are prompted do it within this long, not all in the same moment. */
const SPREAD_MS = 4000;

/**
 * A made-up class: a process of its own, so that it takes nothing from the server that holds the classes. Each stand-in
 * has a line of their own, for as long as the process lives.
 */
export class StandInClass {
  readonly #lines: StandInLine[];

  constructor({ url, session, seed, since, standIns }: Extract<ToClass, { do: 'begin' }>) {
    this.#lines = standIns.map(
      ({ self, link }, i) => new StandInLine(url, session, link, new Mind(self, seed + i)),
    );
    for (const [i, { self }] of standIns.entries()) {
      const line = this.#lines[i]!;
      setTimeout(() => line.comes(), Math.max(0, self.comesAt - since));
      // Each has their own second.
      setTimeout(() => setInterval(() => line.beat(Date.now()), BEAT_MS), (i * BEAT_MS) / standIns.length);
    }
  }

  prompt(what: Prompt) {
    for (const { mind } of this.#lines) setTimeout(() => mind.prompt(what), Math.random() * SPREAD_MS);
  }

  /** How much of what they did was refused. */
  get refused(): number {
    return this.#lines.reduce((sum, line) => sum + line.refused, 0);
  }
}

/**
 * Work that is done again for as long as it was asked for while it was being done: asking never waits behind more than
 * one round, and nothing that was asked is missed.
 */
export class Rounds {
  #asked = false;
  #running: Promise<void> | null = null;

  constructor(readonly work: () => Promise<void>) {}

  /** Resolves when a round has been done that began after this was called. */
  run(): Promise<void> {
    this.#asked = true;
    return (this.#running ??= this.#go());
  }

  async #go() {
    try {
      while (this.#asked) {
        this.#asked = false;
        await this.work();
      }
    } finally {
      // In the same step in which nothing was asked any more: whoever asks next begins anew.
      this.#running = null;
    }
  }
}

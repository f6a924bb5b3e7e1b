import type { Logger } from 'pino';
import type { MediaRelay } from '../media/relay';
import type { Prompts } from './prompts';

/** What one line says: one thing after another; a key that is pressed ends what was being said. */
export class Voice {
  #waiting: string[] = [];
  #speaking: Promise<void> | null = null;
  #turn = 0;
  /** What is being made to be said. */
  #making: Promise<void> = Promise.resolve();

  constructor(
    readonly line: string,
    readonly relay: MediaRelay,
    readonly prompts: Prompts,
    readonly log: Logger,
    /** The same in words. */
    readonly spoken: (words: string) => void,
  ) {}

  /** Resolves when all that is to be said has been. */
  say(text: string): Promise<void> {
    this.#waiting.push(text);
    if (!this.#speaking) {
      const speaking = this.#speak().finally(() => {
        if (this.#speaking === speaking) this.#speaking = null;
      });
      this.#speaking = speaking;
    }
    return this.#speaking;
  }

  /** What is being said stops with what is said next. */
  interrupt() {
    this.#waiting = [];
    this.#turn++;
    this.#speaking = null;
  }

  async #speak() {
    const turn = this.#turn;
    // What comes in the same moment is said in one.
    await null;
    while (this.#waiting.length && turn === this.#turn) {
      // One thing is made at a time, however fast keys are pressed: what is not wanted any more by then is not made.
      await this.#making;
      if (turn !== this.#turn) return;
      const text = this.#waiting.splice(0).join(' ');
      this.spoken(text);
      await this.#play(text, turn).catch((error: unknown) =>
        this.log.warn({ line: this.line, why: String(error) }, 'something was not said'),
      );
    }
  }

  async #play(text: string, turn: number) {
    const making = this.prompts.of(text);
    this.#making = making.then(
      () => {},
      () => {},
    );
    const prompt = await making;
    try {
      if (turn === this.#turn) await this.relay.play(this.line, prompt.file);
    } finally {
      await prompt.done();
    }
  }
}

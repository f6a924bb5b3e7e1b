/** Takes pieces of work one after another, by key: those of one key wait for each other, others do not. */
export class Turns {
  readonly #last = new Map<string, Promise<unknown>>();

  take<T>(key: string, work: () => Promise<T>): Promise<T> {
    const turn = (this.#last.get(key) ?? Promise.resolve()).then(work, work);
    const settled = turn
      .catch(() => {})
      .then(() => {
        if (this.#last.get(key) === settled) this.#last.delete(key);
      });
    this.#last.set(key, settled);
    return turn;
  }
}

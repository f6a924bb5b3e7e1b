import type { Voice } from '@nimble-bell/core/api';

/** Who is heard now, each since an instant, as the relay tells it: where one is; to those who teach, everywhere. */
export class Voices {
  #now: ReadonlyMap<string, number> = new Map();
  readonly #listeners = new Set<() => void>();

  get now() {
    return this.#now;
  }
  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /** All who are heard, for a page that has just come. */
  begin(all: readonly Voice[]) {
    this.#take(new Map(all.flatMap(({ member, since }) => (since === null ? [] : [[member, since]]))));
  }

  heed({ member, since }: Voice) {
    const next = new Map(this.#now);
    if (since === null) next.delete(member);
    else next.set(member, since);
    this.#take(next);
  }

  #take(next: ReadonlyMap<string, number>) {
    this.#now = next;
    for (const listener of this.#listeners) listener();
  }
}

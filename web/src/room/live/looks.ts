import type { RoomConnection } from './connection';

/** What is scrolled past within this is not asked for, ms. */
const SETTLED_MS = 300;

/** Whose cameras this page shows: only those are received. With a poor line none are. */
export class Looks {
  readonly #wanted = new Map<string, number>();
  #off = false;
  #asked = '';
  #timer: ReturnType<typeof setTimeout> | null = null;

  constructor(readonly connection: Pick<RoomConnection, 'ask'>) {}

  /** Somebody is shown from now on, until what it gives is called. */
  want(member: string): () => void {
    this.#wanted.set(member, (this.#wanted.get(member) ?? 0) + 1);
    this.#later();
    return () => {
      const left = (this.#wanted.get(member) ?? 1) - 1;
      if (left) this.#wanted.set(member, left);
      else this.#wanted.delete(member);
      this.#later();
    };
  }

  /** Lets no picture come, or lets them come again. */
  off(off: boolean) {
    if (this.#off === off) return;
    this.#off = off;
    this.#later();
  }

  /** As it is asked for now, in an order of its own. */
  now(): string[] {
    const cameras = this.#off ? [] : [...this.#wanted.keys()].sort();
    this.#asked = cameras.join();
    return cameras;
  }

  #later() {
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      const before = this.#asked;
      const cameras = this.now();
      if (this.#asked !== before) void this.connection.ask('look', { cameras });
    }, SETTLED_MS);
  }
}

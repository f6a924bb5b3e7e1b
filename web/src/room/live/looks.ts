import type { Look } from '@nimble-bell/core/api';
import type { RoomConnection } from './connection';

/** What is scrolled past within this is not asked for, ms. */
const SETTLED_MS = 300;

/** How large a camera is shown: small ones are received small. */
export type Size = 'small' | 'large';

/** Whose cameras this page shows: only those are received, no larger than they are shown. With a poor line none are. */
export class Looks {
  /** In how many places of the page each is shown. */
  readonly #wanted = new Map<string, Record<Size, number>>();
  #off = false;
  #asked = '';
  #timer: ReturnType<typeof setTimeout> | null = null;

  constructor(readonly connection: Pick<RoomConnection, 'ask'>) {}

  /** Somebody is shown from now on, until what it gives is called. */
  want(member: string, size: Size): () => void {
    const shown = this.#wanted.get(member) ?? { small: 0, large: 0 };
    this.#wanted.set(member, shown);
    shown[size]++;
    this.#later();
    return () => {
      shown[size]--;
      if (!shown.small && !shown.large) this.#wanted.delete(member);
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
  now(): Look {
    const cameras = this.#off ? [] : [...this.#wanted.keys()].sort();
    const small = cameras.filter((m) => !this.#wanted.get(m)!.large);
    this.#asked = `${cameras.join()} ${small.join()}`;
    return { cameras, small };
  }

  #later() {
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      const before = this.#asked;
      const looks = this.now();
      if (this.#asked !== before) void this.connection.ask('look', looks);
    }, SETTLED_MS);
  }
}

import type { Way } from '@nimble-bell/core/door';
import type { Devices } from '@nimble-bell/core/room';

/** By how many pages and calls each member is connected to a room. */
export class Connections {
  readonly #by = new Map<string, Record<Way, number>>();

  /** How many members have any. */
  get size() {
    return this.#by.size;
  }
  has = (member: string): boolean => this.#by.has(member);

  of(member: string): Devices {
    const { page, telephone } = this.#by.get(member) ?? { page: 0, telephone: 0 };
    return { pages: page, telephone: telephone > 0 };
  }

  add(member: string, way: Way) {
    const known = this.#by.get(member) ?? { page: 0, telephone: 0 };
    this.#by.set(member, { ...known, [way]: known[way] + 1 });
  }

  remove(member: string, way: Way) {
    const known = this.#by.get(member);
    if (!known) return;
    const left = { ...known, [way]: Math.max(0, known[way] - 1) };
    if (left.page + left.telephone > 0) this.#by.set(member, left);
    else this.#by.delete(member);
  }

  clear() {
    this.#by.clear();
  }
}

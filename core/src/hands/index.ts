/** By whom a client of a document that is written together writes; by nobody who is forgotten. */
export interface Hand {
  client: number;
  member: string | null;
}

/** Letters that somebody put elsewhere, and who had written them: so many from a clock of a client on. */
export interface Moved extends Hand {
  clock: number;
  length: number;
}

/** Letters that follow one another: so many from a clock of a client on. */
export interface Letters {
  client: number;
  clock: number;
  length: number;
}

/** So many letters by a member. */
export interface Written {
  member: string | null;
  length: number;
}

/** Who wrote what in a document: by the hand of its client, but for what was only put elsewhere by it. */
export class Hands {
  readonly #hands: ReadonlyMap<number, string | null>;
  readonly #moved = new Map<number, Moved[]>();

  constructor(hands: readonly Hand[], moved: readonly Moved[]) {
    this.#hands = new Map(hands.map((h) => [h.client, h.member]));
    for (const m of moved) {
      const known = this.#moved.get(m.client);
      if (known) known.push(m);
      else this.#moved.set(m.client, [m]);
    }
    for (const all of this.#moved.values()) all.sort((a, b) => a.clock - b.clock);
  }

  /** Whose these letters are, in their order. */
  of({ client, clock, length }: Letters): Written[] {
    const written: Written[] = [];
    const add = (member: string | null, n: number) => {
      const last = written.at(-1);
      if (last?.member === member) last.length += n;
      else if (n > 0) written.push({ member, length: n });
    };
    const hand = this.#hands.get(client) ?? null;
    const end = clock + length;
    let at = clock;
    for (const moved of this.#moved.get(client) ?? []) {
      const from = Math.max(at, moved.clock);
      const until = Math.min(end, moved.clock + moved.length);
      if (until <= from) continue;
      add(hand, from - at);
      add(moved.member, until - from);
      at = until;
    }
    add(hand, end - at);
    return written;
  }
}

/** A letter of a document, and by whom it is. */
export interface Letter {
  text: string;
  member: string | null;
}

/** Fewer letters than this say nothing of where they are from. */
const LEAST = 4;

/**
 * Which of what is put into a document was taken out of it in the same change: by its words, the longer before the
 * shorter. Gives whose it is, by client and clock.
 */
export function movedIn(
  put: readonly (Letters & { text: string })[],
  taken: readonly (readonly Letter[])[],
): Moved[] {
  const moved: Moved[] = [];
  const left = taken.map((letters) => ({ letters, text: letters.map((l) => l.text).join('') }));
  const note = ({ client, clock }: Letters, from: number, letters: readonly Letter[]) => {
    for (const [i, { member }] of letters.entries()) {
      const last = moved.at(-1);
      const at = clock + from + i;
      if (last?.client === client && last.member === member && last.clock + last.length === at) last.length++;
      else moved.push({ client, clock: at, length: 1, member });
    }
  };
  for (const one of put.filter((p) => p.text.length >= LEAST).sort((a, b) => b.text.length - a.text.length)) {
    // All of it stood in one of them; or one of them stands in it.
    const within = left.find((t) => t.text.includes(one.text));
    if (within) {
      const from = within.text.indexOf(one.text);
      note(one, 0, within.letters.slice(from, from + one.text.length));
      within.text = within.text.replace(one.text, '\u0000'.repeat(one.text.length));
      continue;
    }
    const inside = left
      .filter((t) => t.text.length >= LEAST && one.text.includes(t.text))
      .sort((a, b) => b.text.length - a.text.length)[0];
    if (!inside) continue;
    note(one, one.text.indexOf(inside.text), inside.letters);
    inside.text = '';
  }
  return moved;
}

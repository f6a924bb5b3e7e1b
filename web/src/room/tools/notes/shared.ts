import * as Y from 'yjs';
import type { RoomConnection } from '../../live/connection';

type Line = Pick<RoomConnection, 'view' | 'subscribe' | 'ask' | 'onDocument'>;
interface Of {
  place: string;
  name: string;
}

/** What is typed within this is sent together, ms. */
const TOGETHER_MS = 120;
const AGAIN_MS = 1500;

const toBase64 = (bytes: Uint8Array) => btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''));
const fromBase64 = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

/**
 * A document that is written together, and the line that keeps it the same for all. What could not be sent is kept, and
 * sent once the room is entered again: by what the server lacks, whatever was lost on the way.
 */
export class SharedDocument {
  readonly doc = new Y.Doc();
  #unsent: Uint8Array[] = [];
  #timer: ReturnType<typeof setTimeout> | null = null;
  #stops: (() => void)[] = [];
  #closed = false;

  constructor(
    readonly line: Line,
    readonly of: Of,
    /** It was refused: what is here is not what the others have. */
    readonly refused: (why: string) => void,
    readonly opened: () => void,
  ) {
    this.doc.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin !== this) this.#later(update);
    });
    this.#stops.push(
      line.onDocument(({ place, name, update }) => {
        if (place === of.place && name === of.name) Y.applyUpdate(this.doc, fromBase64(update), this);
      }),
    );
    let { status } = line.view;
    this.#stops.push(
      line.subscribe(() => {
        const before = status;
        ({ status } = line.view);
        if (status === 'in' && before !== 'in') void this.#open();
      }),
    );
    void this.#open();
  }

  close() {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    void this.#send();
    for (const stop of this.#stops) stop();
  }

  async #open() {
    const reply = await this.line.ask('documentOpen', this.of);
    if (this.#closed) return;
    if (!reply) return void setTimeout(() => !this.#closed && void this.#open(), AGAIN_MS);
    // Who only looks has none; who is not in yet opens it once they are.
    if (!reply.ok) return;
    const updates = reply.updates.map(fromBase64);
    const theirs = updates.length ? Y.mergeUpdates(updates) : null;
    if (theirs) Y.applyUpdate(this.doc, theirs, this);
    const lacks = Y.diffUpdate(
      Y.encodeStateAsUpdate(this.doc),
      theirs ? Y.encodeStateVectorFromUpdate(theirs) : Y.encodeStateVector(new Y.Doc()),
    );
    // Nothing but a head of two bytes is nothing.
    this.#unsent = lacks.length > 2 ? [lacks] : [];
    this.opened();
    await this.#send();
  }

  #later(update: Uint8Array) {
    this.#unsent.push(update);
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      void this.#send();
    }, TOGETHER_MS);
  }

  async #send() {
    if (!this.#unsent.length || this.line.view.status !== 'in') return;
    const sent = this.#unsent.splice(0);
    const update = toBase64(Y.mergeUpdates(sent));
    const reply = await this.line.ask('documentUpdate', { ...this.of, update });
    if (reply?.ok) return;
    if (reply && reply.refusal.code !== 'too-many') return this.refused(reply.refusal.message);
    this.#unsent.unshift(...sent);
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      void this.#send();
    }, AGAIN_MS);
  }
}

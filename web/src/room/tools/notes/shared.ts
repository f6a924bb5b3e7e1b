import * as Y from 'yjs';
import type { KnownHands } from '@nimble-bell/core/api';
import { told } from '../../../app/told';
import { fillsBlocks } from './filled';
import type { RoomConnection } from '../../live/connection';

type Line = Pick<RoomConnection, 'view' | 'subscribe' | 'ask' | 'onDocument'>;
interface Of {
  place: string;
  name: string;
}

/** What is typed within this is sent together, ms. */
const TOGETHER_MS = 120;
const AGAIN_MS = 1500;
/** Who typed within this is typing, ms; the others' words wait so long at most. */
const TYPING_MS = 250;
const PATIENT_MS = 2000;
/** Refusals that say nothing of the change itself: it is sent again. */
const PASSING: ReadonlySet<string> = new Set([
  'too-many',
  'busy',
  'internal',
  'away',
  'elsewhere',
  'not-ready',
]);

const toBase64 = (bytes: Uint8Array) => btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''));
const fromBase64 = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

/**
 * A document that is written together, and the line that keeps it the same for all. What could not be sent is kept, and
 * sent once the room is entered again: by what the server lacks, whatever was lost on the way.
 */
export class SharedDocument {
  readonly doc = new Y.Doc();
  /** Whose is what, as far as the server has said. */
  readonly known = told<KnownHands>({ hands: [], moved: [] });
  #unsent: Uint8Array[] = [];
  #timer: ReturnType<typeof setTimeout> | null = null;
  #stops: (() => void)[] = [];
  #closed = false;
  /** What was heard and waits until one has stopped typing. */
  #heard: Uint8Array[] = [];
  #heardSince: number | null = null;
  #typedAt = -TYPING_MS;
  #taking: ReturnType<typeof setTimeout> | null = null;

  constructor(
    readonly line: Line,
    readonly of: Of,
    /** It was refused: what is here is not what the others have. */
    readonly refused: (why: string) => void,
    readonly opened: () => void,
  ) {
    fillsBlocks(this.doc);
    this.doc.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin === this) return;
      this.#typedAt = performance.now();
      this.#later(update);
    });
    this.#stops.push(
      line.onDocument(({ place, name, update, ...known }) => {
        if (place !== of.place || name !== of.name) return;
        this.#know(known);
        this.#heard.push(fromBase64(update));
        this.#heardSince ??= performance.now();
        this.#takeHeard();
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
    for (const timer of [this.#timer, this.#taking]) if (timer) clearTimeout(timer);
    void this.#send();
    for (const stop of this.#stops) stop();
  }

  async #open() {
    const reply = await this.line.ask('documentOpen', this.of);
    if (this.#closed) return;
    if (!reply) return void setTimeout(() => !this.#closed && void this.#open(), AGAIN_MS);
    // Who only looks has none; who is not in yet opens it once they are.
    if (!reply.ok) return;
    this.known.set({ hands: reply.hands, moved: reply.moved });
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

  #know({ hands, moved }: KnownHands) {
    const before = this.known.get();
    if (hands.length || moved.length)
      this.known.set({ hands: [...before.hands, ...hands], moved: [...before.moved, ...moved] });
  }

  /** How it was until an instant, as a document of its own; null where there was no answer. */
  async until(at: number): Promise<Y.Doc | null> {
    const reply = await this.line.ask('documentThen', { ...this.of, at });
    if (!reply?.ok) return null;
    const doc = new Y.Doc();
    for (const update of reply.updates) Y.applyUpdate(doc, fromBase64(update));
    return doc;
  }

  /** The instants at which it is known how it was. */
  async moments(): Promise<number[] | null> {
    const reply = await this.line.ask('documentThen', { ...this.of, at: null });
    return reply?.ok ? reply.moments : null;
  }

  /** What the others wrote comes between one's own words, not into the middle of a key; in a while it comes all the same. */
  #takeHeard() {
    if (this.#taking) return;
    const now = performance.now();
    const waits = now - this.#typedAt < TYPING_MS && now - (this.#heardSince ?? now) < PATIENT_MS;
    if (waits) {
      this.#taking = setTimeout(() => {
        this.#taking = null;
        this.#takeHeard();
      }, TYPING_MS);
      return;
    }
    this.#heardSince = null;
    const heard = this.#heard.splice(0);
    if (heard.length && !this.#closed) Y.applyUpdate(this.doc, Y.mergeUpdates(heard), this);
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
    // Whoever was taken elsewhere meanwhile is told nothing of it.
    if (reply?.ok) this.#know(reply);
    if (reply?.ok || this.#closed) return;
    if (reply && !PASSING.has(reply.refusal.code)) return this.refused(reply.refusal.message);
    this.#unsent.unshift(...sent);
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      void this.#send();
    }, AGAIN_MS);
  }
}

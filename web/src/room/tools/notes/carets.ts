import * as Y from 'yjs';
import { applyAwarenessUpdate, Awareness, encodeAwarenessUpdate } from 'y-protocols/awareness';
import type { Spot } from '@nimble-bell/core/api';
import type { RoomConnection } from '../../live/connection';

type Line = Pick<RoomConnection, 'signal' | 'onSignal'>;

/** Who writes, as their caret says it: by name, in the colour of their hand. */
export interface Writer {
  name: string;
  hand: number;
}
type Cursor = { anchor: Spot; head: Spot };

/** One's own caret is told so often at most, and again after this where it stands still; ms. */
const TOLD_MS = 150;
const AGAIN_MS = 12_000;

/**
 * Where everybody writes in a document: one's own caret is told, the others' are heard, and gone where nothing is heard
 * of them for half a minute. Each of the others has an awareness of their own here, as it would be on their page: who it
 * is, the server says, and not their page.
 */
export class Carets {
  readonly awareness: Awareness;
  readonly #others = new Map<string, Awareness>();
  #told = 'null';
  #toldAt = 0;
  #timer: ReturnType<typeof setTimeout> | null = null;
  readonly #stop: () => void;

  constructor(
    readonly line: Line,
    doc: Y.Doc,
    readonly writer: (member: string) => Writer,
  ) {
    this.awareness = new Awareness(doc);
    this.awareness.on('update', (_changes: unknown, origin: unknown) => {
      if (origin === 'local') this.#timer ??= setTimeout(() => this.#tell(), TOLD_MS);
    });
    this.#stop = line.onSignal((signal) => {
      if (signal.what === 'caret') this.#hear(signal.member, signal.at);
    });
  }

  close() {
    this.#stop();
    if (this.#timer) clearTimeout(this.#timer);
    if (this.#told !== 'null') this.line.signal({ what: 'caret', at: null });
    for (const far of this.#others.values()) far.destroy();
    this.awareness.destroy();
  }

  #tell() {
    this.#timer = null;
    const cursor = (this.awareness.getLocalState()?.cursor ?? null) as Cursor | null;
    const at = JSON.stringify(cursor);
    const now = performance.now();
    if (at === this.#told && (cursor === null || now - this.#toldAt < AGAIN_MS)) return;
    this.#told = at;
    this.#toldAt = now;
    this.line.signal({ what: 'caret', at: JSON.parse(at) as Cursor | null });
  }

  #hear(member: string, told: Cursor | null) {
    const cursor = told && this.#leads(told) ? told : null;
    let far = this.#others.get(member);
    if (!far) this.#others.set(member, (far = new Awareness(new Y.Doc())));
    far.setLocalState(cursor && { user: this.writer(member), cursor });
    applyAwarenessUpdate(this.awareness, encodeAwarenessUpdate(far, [far.clientID]), this);
    if (cursor) return;
    far.destroy();
    this.#others.delete(member);
  }

  /** Whether it can be looked for: what a page tells that is not as ours would stop the editor. */
  #leads({ anchor, head }: Cursor): boolean {
    try {
      for (const spot of [anchor, head])
        Y.createAbsolutePositionFromRelativePosition(
          Y.createRelativePositionFromJSON(spot),
          this.awareness.doc,
        );
      return true;
    } catch {
      return false;
    }
  }
}

/** A caret with its writer's name: drawn, and no letter of what is written. */
export function caretOf({ name, hand }: Writer): HTMLElement {
  const caret = document.createElement('span');
  caret.className = 'nb-caret';
  caret.dataset.hand = String(hand);
  caret.dataset.name = name;
  caret.setAttribute('aria-hidden', 'true');
  return caret;
}
export const chosenBy = ({ hand }: Writer) => ({ class: 'nb-chosen', 'data-hand': String(hand) });

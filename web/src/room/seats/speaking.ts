import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { Call } from '../live/call';

const LOUD = 0.01;
/** A breath between two words does not end the speaking. */
const HELD_MS = 1200;
const LISTEN_MS = 150;

/** Who is speaking now, by the sound that arrives here: asked for once for all seats, told to those whose answer changed. */
export class Speaking {
  #now: ReadonlySet<string> = new Set();
  readonly #listeners = new Set<() => void>();
  readonly #heard = new Map<string, number>();

  constructor(readonly call: Pick<Call, 'levels'>) {}

  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  is = (member: string) => this.#now.has(member);

  listen(now: number) {
    for (const [member, level] of this.call.levels()) if (level > LOUD) this.#heard.set(member, now);
    const held = [...this.#heard].filter(([, at]) => now - at < HELD_MS).map(([member]) => member);
    if (held.length === this.#now.size && held.every((m) => this.#now.has(m))) return;
    this.#now = new Set(held);
    for (const listener of this.#listeners) listener();
  }
}

/** Listens for as long as the seats are shown. */
export function useListening(call: Pick<Call, 'levels'>): Speaking {
  const [speaking] = useState(() => new Speaking(call));
  useEffect(() => {
    const timer = setInterval(() => speaking.listen(performance.now()), LISTEN_MS);
    return () => clearInterval(timer);
  }, [speaking]);
  return speaking;
}

export const useSpeaks = (speaking: Speaking, member: string): boolean =>
  useSyncExternalStore(
    speaking.subscribe,
    useMemo(() => () => speaking.is(member), [speaking, member]),
  );

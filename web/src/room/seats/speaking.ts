import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { serverNow } from '../../app/clock';
import type { Call } from '../live/call';
import { useRoom } from '../live/useRoom';
import type { Voices } from '../live/voices';

const LOUD = 0.01;
/** A breath between two words does not end the speaking. */
const HELD_MS = 1200;
const LISTEN_MS = 150;

/**
 * Who is speaking now, and since when: by the relay, which hears them all, and by the sound that arrives here, which is a
 * moment quicker and misses nothing that is low. Asked for once for all seats, told to those whose answer changed.
 */
export class Speaking {
  /** Since when each is heard here, and when last. */
  readonly #here = new Map<string, { since: number; last: number }>();
  #now: ReadonlyMap<string, number>;
  readonly #listeners = new Set<() => void>();

  constructor(
    readonly call: Pick<Call, 'levels'>,
    readonly voices: Pick<Voices, 'now'>,
  ) {
    this.#now = voices.now;
  }

  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly since = (member: string): number | null => this.#now.get(member) ?? null;

  readonly listen = () => {
    const now = serverNow();
    for (const [member, level] of this.call.levels())
      if (level > LOUD) this.#here.set(member, { since: this.#here.get(member)?.since ?? now, last: now });
    for (const [member, { last }] of this.#here) if (now - last >= HELD_MS) this.#here.delete(member);
    const next = new Map([...this.#here].map(([member, { since }]) => [member, since]));
    for (const [member, since] of this.voices.now) next.set(member, since);
    if (next.size === this.#now.size && [...next].every(([m, since]) => this.#now.get(m) === since)) return;
    this.#now = next;
    for (const listener of this.#listeners) listener();
  };
}

/** Listens for as long as the seats are shown. */
export function useListening(): Speaking {
  const { call, connection } = useRoom();
  const { voices } = connection;
  const [speaking] = useState(() => new Speaking(call, voices));
  useEffect(() => {
    const timer = setInterval(speaking.listen, LISTEN_MS);
    const stop = voices.subscribe(speaking.listen);
    return () => {
      clearInterval(timer);
      stop();
    };
  }, [speaking, voices]);
  return speaking;
}

/** Since when somebody speaks; null where they do not. */
export const useSpeaks = (speaking: Speaking, member: string): number | null =>
  useSyncExternalStore(
    speaking.subscribe,
    useMemo(() => () => speaking.since(member), [speaking, member]),
  );

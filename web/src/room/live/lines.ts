import { useMemo, useSyncExternalStore } from 'react';
import type { Line } from '@nimble-bell/core/api';
import { serverNow } from '../../app/clock';
import type { RoomConnection } from './connection';
import { useRoom } from './useRoom';

/** Who has said nothing for so long is taken to be well, ms. */
const FORGOTTEN_MS = 60_000;

/** How the others' connections are, as they say themselves: for those who teach. */
export class Lines {
  readonly #known = new Map<string, { line: Line; at: number }>();
  readonly #listeners = new Set<() => void>();

  constructor(connection: Pick<RoomConnection, 'onSignal'>) {
    connection.onSignal((signal) => {
      if (signal.what !== 'line') return;
      this.#known.set(signal.member, { line: signal.line, at: serverNow() });
      for (const listener of this.#listeners) listener();
    });
  }

  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  of(member: string): Line {
    const known = this.#known.get(member);
    return known && serverNow() - known.at < FORGOTTEN_MS ? known.line : 'good';
  }
}

export const LINE_WORDS: Record<Exclude<Line, 'good'>, string> = {
  weak: 'weak connection',
  poor: 'poor connection, sound only',
};

/** How somebody's connection is; good where nothing is known of it. */
export function useLineOf(member: string): Line {
  const { lines } = useRoom();
  return useSyncExternalStore(
    lines.subscribe,
    useMemo(() => () => lines.of(member), [lines, member]),
  );
}

import type { StoredEvent } from '../room/index';
import { positionOf, type Part } from './timeline';

/** What is drawn of a recording is drawn anew so often at most, ms; and in a long class so seldom that these are enough. */
const STEP_MS = 500;
const MOST = 1200;

/**
 * When what these events changed is drawn anew, ms of a recording of `length`. What changed within one step is there at its
 * end; what came before the recording is there from its beginning.
 */
export function momentsOf(events: readonly StoredEvent[], parts: readonly Part[], length: number): number[] {
  const step = Math.max(STEP_MS, length / MOST);
  const moments = new Set<number>();
  for (const { at } of events) {
    const position = Math.max(0, positionOf(parts, at));
    if (position < length) moments.add(Math.min(length, Math.ceil(position / step) * step));
  }
  return [...moments].sort((a, b) => a - b);
}

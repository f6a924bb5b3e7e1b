import { evolve, newRoom, type RoomState, type StoredEvent } from '../room/index';
import { positionOf, type Part } from './timeline';

/** Every so many events the room is kept as it then was. */
const EVERY = 200;

/**
 * A room at any moment of its recording. It goes forward from the nearest state it has kept, never from the beginning:
 * playing on takes the next events only, and a jump at most a few hundred.
 */
export class Replay {
  readonly #positions: readonly number[];
  readonly #kept: RoomState[] = [newRoom()];
  #last: { count: number; room: RoomState } = { count: 0, room: newRoom() };

  /** `events` in their order; positions are ms into the recording. */
  constructor(
    readonly events: readonly StoredEvent[],
    parts: readonly Part[],
  ) {
    this.#positions = events.map((e) => positionOf(parts, e.at));
  }

  /** The room after everything that had happened by this position. */
  at(position: number): RoomState {
    const count = this.#countBy(position);
    const nearest = Math.min(Math.floor(count / EVERY), this.#kept.length - 1) * EVERY;
    let { count: from, room } = this.#last;
    if (from > count || from < nearest) {
      from = nearest;
      room = this.#kept[nearest / EVERY]!;
    }
    for (let i = from; i < count; i++) {
      room = evolve(room, this.events[i]!);
      if ((i + 1) % EVERY === 0 && this.#kept.length === (i + 1) / EVERY) this.#kept.push(room);
    }
    this.#last = { count, room };
    return room;
  }

  /** How many events lie at or before a position; positions never go back. */
  #countBy(position: number): number {
    let low = 0;
    let high = this.#positions.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#positions[middle]! <= position) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

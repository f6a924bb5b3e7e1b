import { evolve, newRoom, type RoomState } from '@nimble-bell/core/room';
import type { Db } from '../db/pool';
import { eventRowsAfter } from './store';

/** So many rooms are kept at hand. */
const MOST = 40;

/**
 * Rooms as they are stored, read by whoever does not hold them: each question reads what was added since the one before,
 * so a whole class that asks at once costs little, and what is answered is never older than the question.
 */
export class RoomReader {
  readonly #known = new Map<string, RoomState>();

  async room(db: Db, session: string): Promise<RoomState> {
    const known = this.#known.get(session) ?? newRoom();
    const room = (await eventRowsAfter(db, session, known.seq)).reduce(
      (r, { event }) => evolve(r, event),
      known,
    );
    this.#known.delete(session);
    this.#known.set(session, room);
    if (this.#known.size > MOST) this.#known.delete(this.#known.keys().next().value!);
    return room;
  }
}

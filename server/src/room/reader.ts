import { evolve, newRoom, type RoomState } from '@nimble-bell/core/room';
import type { Db } from '../db/pool';
import { eventRowsAfter } from './store';

/** So many rooms are kept at hand. */
const MOST = 40;

/**
 * Rooms as they are stored, read by whoever does not hold them: each question reads what was added since the one before,
 * and all who ask while one is answered are answered by the next, so a whole class that asks at once costs two; no answer is
 * older than its question.
 */
export class RoomReader {
  readonly #known = new Map<string, RoomState>();

  /** The question that is being answered, and the one that waits for it, with all who have come since. */
  readonly #running = new Map<string, Promise<unknown>>();
  readonly #waiting = new Map<string, Promise<RoomState>>();

  room(db: Db, session: string): Promise<RoomState> {
    const waiting = this.#waiting.get(session);
    if (waiting) return waiting;
    const before = this.#running.get(session) ?? Promise.resolve();
    const next = before
      .catch(() => {})
      .then(() => {
        this.#waiting.delete(session);
        const read = this.#read(db, session);
        this.#running.set(session, read);
        return read;
      });
    this.#waiting.set(session, next);
    return next;
  }

  async #read(db: Db, session: string): Promise<RoomState> {
    const known = this.#known.get(session) ?? newRoom();
    const added = await eventRowsAfter(db, session, known.seq);
    const room = added.reduce((r, { event }) => evolve(r, event), known);
    this.#known.delete(session);
    this.#known.set(session, room);
    if (this.#known.size > MOST) {
      const oldest = this.#known.keys().next().value!;
      this.#known.delete(oldest);
      this.#running.delete(oldest);
    }
    return room;
  }
}

import type { Room } from '../room';
import type { LiveSocket } from './visits';

/** A page that waits at a room's door. */
export interface Waiting {
  socket: LiveSocket;
  room: Room;
  member: string;
}

/** Every page that waits at a door of this server, by its socket. */
export class Porch {
  readonly #bySocket = new Map<string, Waiting>();

  add(waiting: Waiting) {
    this.#bySocket.set(waiting.socket.id, waiting);
  }
  remove(socket: string): Waiting | null {
    const waiting = this.#bySocket.get(socket) ?? null;
    this.#bySocket.delete(socket);
    return waiting;
  }
  at(room: Room): Waiting[] {
    return [...this.#bySocket.values()].filter((w) => w.room === room);
  }
  of(room: Room, members: readonly string[]): Waiting[] {
    return this.at(room).filter((w) => members.includes(w.member));
  }
}

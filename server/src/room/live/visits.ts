import type { Socket } from 'socket.io';
import type { ClientMessages, ServerMessages } from '@nimble-bell/core/api';
import type { Room } from '../room';
import type { Credential } from './rights';
import type { MemberRow } from '../../accounts/store';

export type LiveSocket = Socket<ClientMessages, ServerMessages>;

/** A page that is in a room. */
export interface Visit {
  socket: LiveSocket;
  room: Room;
  member: MemberRow;
  credential: Credential;
}

/** Every page that is in a room of this server, by its socket. */
export class Visits {
  readonly #bySocket = new Map<string, Visit>();

  get(socket: string): Visit | undefined {
    return this.#bySocket.get(socket);
  }
  all(): Visit[] {
    return [...this.#bySocket.values()];
  }
  in(room: Room): Visit[] {
    return this.all().filter((v) => v.room === room);
  }

  add(visit: Visit) {
    const { room, member, socket } = visit;
    this.#bySocket.set(socket.id, visit);
    room.connections.set(member.id, (room.connections.get(member.id) ?? 0) + 1);
  }

  /** Gives the visit that ended, and whether it was the member's last in that room. */
  remove(socket: string): { visit: Visit; last: boolean } | null {
    const visit = this.#bySocket.get(socket);
    if (!visit) return null;
    this.#bySocket.delete(socket);
    const { room, member } = visit;
    const left = (room.connections.get(member.id) ?? 1) - 1;
    if (left > 0) room.connections.set(member.id, left);
    else room.connections.delete(member.id);
    return { visit, last: left <= 0 };
  }
}

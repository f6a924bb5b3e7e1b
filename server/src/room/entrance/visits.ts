import type { Way } from '@nimble-bell/core/door';
import type { Room } from '../room';
import type { Credential } from './rights';
import type { MemberRow } from '../../accounts/store';

/** By what somebody comes to a room: a page's line, or a call. What it is told, it tells its person in its own way. */
export interface Device {
  readonly id: string;
  readonly way: Way;
  /** It is in, as this member: it hears from now on what they may hear. */
  join(visit: Visit): void;
  /** It is out: it hears nothing more of the room. */
  leave(): void;
  /** Something is different at the door at which it waits: it enters anew. */
  door(): void;
  /** A word to those who wait. */
  word(text: string): void;
  /** Its person is something else in the course now. */
  you(member: MemberRow): void;
  putOut(message: string): void;
  /** Another server has the room. */
  moved(): void;
  /** After it was put out. */
  close(): void;
}

/** A device that is in a room. */
export interface Visit {
  device: Device;
  room: Room;
  member: MemberRow;
  credential: Credential;
}

/** Every device that is in a room of this server. */
export class Visits {
  readonly #all = new Map<string, Visit>();

  get(device: string): Visit | undefined {
    return this.#all.get(device);
  }
  all(): Visit[] {
    return [...this.#all.values()];
  }
  in(room: Room): Visit[] {
    return this.all().filter((v) => v.room === room);
  }

  add(visit: Visit) {
    const { room, member, device } = visit;
    this.#all.set(device.id, visit);
    room.connections.add(member.id, device.way);
  }

  /** Gives the visit that ended. */
  remove(device: string): Visit | null {
    const visit = this.#all.get(device);
    if (!visit) return null;
    this.#all.delete(device);
    visit.room.connections.remove(visit.member.id, visit.device.way);
    return visit;
  }
}

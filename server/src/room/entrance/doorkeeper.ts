import type { PorchInfo } from '@nimble-bell/core/api';
import type { StoredEvent, StoredOf } from '@nimble-bell/core/room';
import type { MemberRow } from '../../accounts/store';
import type { RoomFacts } from './info';
import type { Room } from '../room';
import type { Device } from './visits';

/** A device that waits at a room's door. */
interface Waiting {
  device: Device;
  room: Room;
  member: string;
}

/** What changes whether somebody may come in, and how. */
export const DOOR_EVENTS: ReadonlySet<StoredEvent['type']> = new Set([
  'rangIn',
  'dismissed',
  'settingsChanged',
  'replanned',
  'unlocked',
]);

const TURNED = 'A teacher does not let you into this session.';

/**
 * Those who wait at the doors of this server's rooms. They are no visitors: they hear nothing of a room but that
 * something is different at its door, and then enter anew.
 */
export class Doorkeeper {
  readonly #waiting = new Map<string, Waiting>();

  wait(waiting: Waiting) {
    this.#waiting.set(waiting.device.id, waiting);
  }

  /** Gives who it was, and at which door. */
  goes(device: string): { room: Room; member: string } | null {
    const waiting = this.#waiting.get(device) ?? null;
    this.#waiting.delete(device);
    return waiting;
  }

  waits(room: Room, member: string): boolean {
    return this.#at(room, [member]).length > 0;
  }

  /** What happened in a room, to those at its door whom it concerns. */
  tell(room: Room, events: readonly StoredEvent[]) {
    for (const e of events) {
      if (DOOR_EVENTS.has(e.type)) this.#open(room);
      if (e.type === 'admitted') this.#open(room, e.members);
      if (e.type === 'turnedAway') this.#turn(this.#at(room, e.members), e.word || TURNED);
      if (e.type === 'dismissed') this.#turn(this.#at(room), 'The class is over.');
      if (e.type === 'porchTold') for (const { device } of this.#at(room)) device.word(e.text);
    }
  }

  /** Another server has this room: who waits connects anew, and waits there. */
  moved(room: Room) {
    for (const { device } of this.#at(room)) {
      this.#waiting.delete(device.id);
      device.moved();
    }
  }

  #at(room: Room, members?: readonly string[]): Waiting[] {
    return [...this.#waiting.values()].filter(
      (w) => w.room === room && (!members || members.includes(w.member)),
    );
  }

  #open(room: Room, members?: readonly string[]) {
    for (const { device } of this.#at(room, members)) device.door();
  }

  #turn(some: readonly Waiting[], message: string) {
    for (const { device } of some) {
      this.#waiting.delete(device.id);
      device.putOut(message);
    }
  }
}

/** What somebody who knocked is told while they wait. */
export function porchFor(
  room: Room,
  member: MemberRow,
  { course, session }: RoomFacts,
  now: number,
): PorchInfo {
  const { knocks, word } = room.state.door;
  const { seriesTitle, number, startsAt } = session;
  return {
    course,
    session: { seriesTitle, number, startsAt },
    zone: member.zone,
    since: knocks.find((k) => k.member === member.id)?.at ?? now,
    word,
  };
}

const SENT_OUT = {
  may: 'A teacher has put you out of the room. You may come in again.',
  knocks: 'A teacher has put you out of the room. Knock to come in again.',
  not: 'A teacher has put you out of this session.',
} as const;

/** What somebody who is put out reads. */
export const sentOutWords = ({ back, reason }: Pick<StoredOf<'sentOut'>, 'back' | 'reason'>): string =>
  reason ? `${SENT_OUT[back]} ${reason}` : SENT_OUT[back];

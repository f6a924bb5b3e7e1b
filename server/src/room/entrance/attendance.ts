import type { SeatPerson } from '@nimble-bell/core/api';
import {
  goneFromDoor,
  isHere,
  knowing,
  onDevices,
  peopleFor,
  type StoredEvent,
  type StoredOf,
} from '@nimble-bell/core/room';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import type { MemberRow } from '../../accounts/store';
import type { Context } from '../../context';
import { Rounds } from '../effects/rounds';
import type { Media } from '../effects/media';
import { heedOutside } from '../outside';
import type { Room } from '../room';
import type { Rooms } from '../rooms';
import { comerOf, seat } from './admit';
import { Doorkeeper, DOOR_EVENTS, sentOutWords } from './doorkeeper';
import { Facts } from './info';
import { isOther, standingNow, type Credential } from './rights';
import { Visits, type Device, type Visit } from './visits';

/** A page that lost its connection has this long to come back before its person has left. */
export const GRACE_MS = 4000;
/** Ends of links and sign-ins, and what other servers changed, are noticed this often. */
const CHECK_MS = 1000;
/** A page that is made anew is two for a moment. */
const SETTLED_MS = 1500;

/** Somebody who was admitted to a session, and by what they are known. */
export interface Arrival {
  member: MemberRow;
  credential: Credential;
}

/**
 * Who is in the rooms of this server, and who waits at their doors, by whatever they came: who may stay is asked again and
 * again, and what a teacher decides of them is done to each of their devices.
 */
export class Attendance {
  readonly facts: Facts;
  readonly #visits = new Visits();
  readonly #door = new Doorkeeper();
  readonly #checks = new Rounds(() => this.#check());
  /** The class list that each room was told last. */
  readonly #told = new WeakMap<Room, string>();
  #timer: NodeJS.Timeout | null = null;

  constructor(
    readonly ctx: Context,
    readonly rooms: Rooms,
    readonly media: Media,
    /** A device is told the class list as its person may have it. */
    readonly tellPeople: (device: string, people: SeatPerson[]) => void,
  ) {
    this.facts = new Facts(ctx);
  }

  /** From now on it heeds what happens. Whoever else listens to the rooms does so before: who is put out has heard of it. */
  begin() {
    this.rooms.listen({
      told: (room, events) => this.#heed(room, events),
      lost: (room) => this.#moved(room),
    });
    this.ctx.signals.on('changed', (heeded) => {
      const done = this.#heedChange().catch((e: unknown) =>
        this.ctx.log.warn({ why: String(e) }, 'a change was not heeded'),
      );
      heeded.push(done);
    });
    this.#timer = setInterval(() => void this.recheck(), CHECK_MS);
  }

  close() {
    if (this.#timer) clearInterval(this.#timer);
  }

  visit = (device: string): Visit | undefined => this.#visits.get(device);

  /**
   * Takes an admitted person's device into the session's room, or lets it wait at its door, whichever the room says. What
   * is read with `once` is read in the moment in which it joins: nothing is told in between.
   */
  async enter<T>(
    device: Device,
    session: string,
    { member, credential }: Arrival,
    once: (room: Room) => T,
  ): Promise<{ in: true; read: T } | { in: false; room: Room }> {
    const known = this.#visits.get(device.id);
    if (known && (known.room.session !== session || known.member.id !== member.id))
      await this.depart(device.id, 0);
    const room = await this.rooms.room(session);
    this.#door.goes(device.id);
    const stays = this.#visits.get(device.id);
    if (stays) Object.assign(stays, { member, credential });
    else this.#visits.add({ device, room, member, credential });
    try {
      if ((await seat(this.ctx, room, member, device.way)) === 'knocks') {
        await this.depart(device.id, 0);
        this.#door.wait({ device, room, member: member.id });
        return { in: false, room };
      }
    } catch (error) {
      await this.depart(device.id, 0);
      throw error;
    }
    device.join(this.#visits.get(device.id) ?? { device, room, member, credential });
    this.#countDevices(room, member.id, device.way === 'page' ? SETTLED_MS : 0);
    return { in: true, read: once(room) };
  }

  /** A device goes from the room or from its door; after a while, or at once, its person has too. */
  async goAway(device: string, grace: number) {
    const waited = this.#door.goes(device);
    if (waited) {
      const { room, member } = waited;
      await this.#after(grace, 'a knock', async () => {
        if (!this.#door.waits(room, member)) await room.happen((state) => goneFromDoor(state, member));
      });
    }
    await this.depart(device, grace);
  }

  /** A device leaves the room; its person too, where it was their last. */
  async depart(deviceId: string, grace: number) {
    const ended = this.#visits.remove(deviceId);
    if (!ended) return;
    const { room, member, device } = ended;
    device.leave();
    return this.#after(grace, 'a departure', async () => {
      const { pages, telephone } = room.connections.of(member.id);
      if (!room.connections.has(member.id))
        return room.happen((state) =>
          isHere(state, member.id) && !room.connections.has(member.id)
            ? [{ type: 'left', member: member.id }]
            : [],
        );
      if (device.way === 'page' ? pages === 0 : !telephone)
        await this.media.unpublish(room, member.id, device.way);
      this.#countDevices(room, member.id, 0);
    });
  }

  /** Does it at once, or in a while; what is done in a while and fails is logged. */
  async #after(grace: number, what: string, work: () => Promise<void>) {
    if (grace === 0) return work();
    setTimeout(
      () => void work().catch((e: unknown) => this.ctx.log.warn({ why: String(e) }, what)),
      grace,
    ).unref();
  }

  /** By what somebody is here is for all to know. */
  #countDevices(room: Room, member: string, wait: number) {
    void this.#after(wait, 'by what somebody is here', async () => {
      if (!room.connections.has(member)) return;
      const devices = () => room.connections.of(member);
      if (onDevices(room.state, member, devices()).length)
        await room.happen((state) =>
          room.connections.has(member) ? onDevices(state, member, devices()) : [],
        );
    }).catch((e: unknown) => this.ctx.log.warn({ why: String(e) }, 'by what somebody is here'));
  }

  #heed(room: Room, events: readonly StoredEvent[]) {
    // Ring-in, dismissal and new settings decide about the door.
    if (events.some((e) => DOOR_EVENTS.has(e.type))) this.facts.forget();
    this.#door.tell(room, events);
    for (const e of events) if (e.type === 'sentOut') void this.#sendOut(room, e);
    if (!events.some((e) => e.type === 'dismissed')) return;
    for (const { device } of this.#visits.in(room)) {
      this.#visits.remove(device.id);
      device.leave();
    }
    room.connections.clear();
    this.rooms.forget(room.session);
  }

  async #sendOut(room: Room, event: StoredOf<'sentOut'>) {
    for (const visit of this.#visits.in(room).filter((v) => v.member.id === event.member))
      await this.#putOut(visit, sentOutWords(event)).catch((e: unknown) =>
        this.ctx.log.error(e, 'putting out'),
      );
  }

  /**
   * Asks what everyone in a room is now, and lets it be so at once: whoever may not stay is put out, whoever is called or
   * is something else is so for all. Changes that come meanwhile are asked for after it.
   */
  recheck(): Promise<void> {
    return this.#checks
      .run()
      .catch((error: unknown) => this.ctx.log.warn({ why: String(error) }, 'rights could not be read'));
  }

  async #check() {
    const visits = this.#visits.all();
    const now = await standingNow(this.ctx, visits);
    const others = visits.flatMap((visit, i) => {
      const member = now[i] ?? null;
      return member && !isOther(member, visit.member) ? [] : [{ visit, member }];
    });
    if (others.length === 0) return;
    this.facts.forget();
    for (const { visit, member } of others) await this.#apply(visit, member);
    await this.#tellAll(new Set(others.map((o) => o.visit.room)));
  }

  async #apply(visit: Visit, member: MemberRow | null) {
    const { room, device } = visit;
    if (this.#visits.get(device.id) !== visit) return;
    const about = member && (await this.facts.of(room.session));
    if (!member || !about || !isFor(targetOf(about.row), member))
      return this.#putOut(visit, NO_LONGER[visit.credential.kind]);
    visit.member = member;
    device.join(visit);
    await room.happen((state) => knowing(state, comerOf(member)));
    device.you(member);
  }

  async #putOut({ device, room, member }: Visit, message: string) {
    device.putOut(message);
    const others = this.#visits
      .in(room)
      .some((v) => v.member.id === member.id && v.device.way === device.way && v.device.id !== device.id);
    await this.depart(device.id, 0);
    if (!others) await this.media.unpublish(room, member.id, device.way);
    device.close();
  }

  /** Something was written: who is in a room, what holds there, and the list beside it are as they are now. */
  async #heedChange() {
    this.facts.forget();
    await this.recheck();
    const rooms = new Set(this.#visits.all().map((v) => v.room));
    for (const room of rooms) await heedOutside(this.ctx, room);
    await this.#tellAll(rooms);
  }

  async #tellAll(rooms: ReadonlySet<Room>) {
    for (const room of rooms) {
      const { people } = await this.facts.of(room.session);
      const list = JSON.stringify(people);
      if (this.#told.get(room) !== list)
        for (const { device, member } of this.#visits.in(room))
          this.tellPeople(device.id, peopleFor(room.state, { member: member.id, role: member.role }, people));
      this.#told.set(room, list);
    }
  }

  /** Another server has this room: its devices connect anew, and are taken there. */
  #moved(room: Room) {
    this.#door.moved(room);
    for (const { device } of this.#visits.in(room)) {
      this.#visits.remove(device.id);
      device.moved();
    }
    void this.media.close(room).catch((error: unknown) => this.ctx.log.warn(String(error)));
  }
}

/** What somebody reads who may not stay. */
export const NO_LONGER: Record<Credential['kind'], string> = {
  link: 'Your link is no longer good for this class.',
  account: 'You are not signed in as somebody of this class any more.',
  pin: 'Your PIN is no longer good for this class.',
};

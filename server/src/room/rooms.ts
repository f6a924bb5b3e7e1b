import { goneFromDoor, type RoomEvent, type StoredEvent } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { sessionById } from '../courses/store';
import { Elsewhere, type Leases } from './lease';
import { askedByLot } from '../after/store';
import { heedOutside, openingOf } from './outside';
import { Room, type RoomListener } from './room';
import { liveRooms } from './store';

const LOOK_MS = 1000;
/** Those who were in the room when the server went away have this long to come back. */
const RETURN_MS = 20_000;

/** The rooms this server holds. A room begins to exist when someone enters, and is rebuilt after a restart. */
export class Rooms {
  readonly #rooms = new Map<string, Promise<Room>>();
  readonly #listeners: Partial<RoomListener>[] = [];
  #timer: NodeJS.Timeout | null = null;
  #looking = false;

  constructor(
    readonly ctx: Context,
    readonly leases: Leases,
  ) {}

  listen(listener: Partial<RoomListener>) {
    this.#listeners.push(listener);
  }

  /** The room of a session, from its events; refused with `Elsewhere` where another server holds it. */
  room(session: string): Promise<Room> {
    let room = this.#rooms.get(session);
    if (!room) {
      room = this.#open(session);
      this.#rooms.set(session, room);
      room.catch(() => this.#rooms.delete(session));
    }
    return room;
  }

  /** A room that is open here, if it is. */
  async held(session: string): Promise<Room | null> {
    return (await this.#rooms.get(session)?.catch(() => null)) ?? null;
  }

  /** Every room that is open here. */
  async all(): Promise<Room[]> {
    const rooms = await Promise.all([...this.#rooms.values()].map((r) => r.catch(() => null)));
    return rooms.filter((r) => r !== null);
  }

  /** Whether a class is on here. */
  async anyLive(): Promise<boolean> {
    return (await this.all()).some((room) => room.state.bell.phase === 'live');
  }

  /** Live rooms come back as they were; then this server looks after those whose holder has died. */
  async start() {
    await this.#adopt();
    this.#timer = setInterval(() => {
      if (this.#looking) return;
      this.#looking = true;
      void this.#look()
        .catch((error: unknown) =>
          this.ctx.log.warn({ why: String(error) }, 'the rooms could not be looked after'),
        )
        .finally(() => (this.#looking = false));
    }, LOOK_MS);
  }

  stop() {
    if (this.#timer) clearInterval(this.#timer);
    for (const room of this.#rooms.values()) void room.then((r) => r.close()).catch(() => {});
  }

  forget(session: string) {
    const room = this.#rooms.get(session);
    this.#rooms.delete(session);
    void room?.then((r) => r.close()).catch(() => {});
  }

  async #look() {
    for (const [session, pending] of this.#rooms) {
      const room = await pending.catch(() => null);
      const empty = room && !Object.values(room.state.presence.people).some((o) => o.present);
      if (empty && room.state.bell.phase !== 'live' && room.connections.size === 0) this.forget(session);
    }
    await this.#adopt();
    for (const room of await this.all()) await heedOutside(this.ctx, room);
  }

  /** Takes the live rooms that nobody holds, or whose holder is dead. */
  async #adopt() {
    for (const { session } of await liveRooms(this.ctx.db))
      if (!this.#rooms.has(session))
        await this.room(session).catch((error: unknown) => {
          if (!(error instanceof Elsewhere)) this.ctx.log.error(error, `the room ${session} was not opened`);
        });
  }

  async #open(session: string): Promise<Room> {
    const row = await sessionById(this.ctx.db, session);
    if (!row) throw new Error(`There is no session ${session}.`);
    const { lease, silentSince } = await this.leases.take(session);
    const room = new Room(this.ctx, lease, {
      told: (r, events) => this.#tell(r, events),
      lost: (r) => {
        this.#rooms.delete(r.session);
        for (const listener of this.#listeners) listener.lost?.(r);
      },
    });
    await room.load();
    const asked = room.state.bell.kind ? {} : await askedByLot(this.ctx.db, session);
    await room.happen((state) => {
      if (state.bell.phase === 'dismissed') return [];
      const opened: RoomEvent[] = state.bell.kind ? [] : [{ ...openingOf(row), asked }];
      if (state.bell.phase === 'live')
        opened.push({ type: 'interrupted', from: silentSince ?? room.lastAt ?? this.ctx.now() });
      // Nobody has a page at its door either: who waited knocks again.
      return [...opened, ...state.door.knocks.flatMap((k) => goneFromDoor(state, k.member))];
    });
    // A room that was just read has nobody connected: who was in a waiting one has long gone, who was in class may return.
    await heedOutside(this.ctx, room);
    if (room.state.bell.phase === 'waiting') await this.dropTheMissing(room);
    else
      setTimeout(
        () =>
          void this.dropTheMissing(room).catch((error: unknown) =>
            this.ctx.log.warn({ why: String(error) }, 'those who did not return'),
          ),
        RETURN_MS,
      ).unref();
    return room;
  }

  #tell(room: Room, events: readonly StoredEvent[]) {
    for (const listener of this.#listeners) listener.told?.(room, events);
  }

  /** Whoever has no page open on the room has left it. */
  dropTheMissing(room: Room): Promise<void> {
    return room.happen((state) =>
      Object.values(state.presence.people)
        .filter((o) => o.present && !room.connections.has(o.member))
        .map((o) => ({ type: 'left', member: o.member })),
    );
  }
}

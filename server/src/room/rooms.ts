import { isStanding, type StoredEvent } from '@nimble-bell/core/api';
import type { Layer } from '@nimble-bell/core/limits';
import { newId, type Context } from '../context';
import { courseById, sessionById } from '../courses/store';
import { rows } from '../db/pool';
import { leaseOf, renewLease } from './store';
import { Room, type RoomListener } from './room';

const LEASE_MS = 1000;
/** Those who were in the room when the server went away have this long to come back. */
const RETURN_MS = 20_000;

/** The rooms this server holds. A room begins to exist when someone enters, and is rebuilt after a restart. */
export class Rooms {
  readonly #rooms = new Map<string, Promise<Room>>();
  readonly #listeners: RoomListener[] = [];
  readonly #owner = newId();
  #timer: NodeJS.Timeout | null = null;

  constructor(readonly ctx: Context) {}

  listen(listener: RoomListener) {
    this.#listeners.push(listener);
  }

  /** The room of a session, from its events. */
  room(session: string): Promise<Room> {
    let room = this.#rooms.get(session);
    if (!room) {
      room = this.#load(session);
      this.#rooms.set(session, room);
      room.catch(() => this.#rooms.delete(session));
    }
    return room;
  }

  /** Live rooms come back as they were, with the time the server was away on record. */
  async start() {
    const live = await rows<{ id: string }>(this.ctx.db, "SELECT id FROM sessions WHERE state = 'live'");
    for (const { id } of live) {
      const lease = await leaseOf(this.ctx.db, id);
      const room = await this.room(id);
      const lastSeen = lease?.aliveAt ?? room.events.at(-1)?.at ?? this.ctx.now();
      await room.happen(() => [{ type: 'interrupted', from: lastSeen }]);
      setTimeout(() => void this.#dropTheMissing(room), RETURN_MS).unref();
    }
    this.#timer = setInterval(() => void this.#tick(), LEASE_MS);
  }

  stop() {
    if (this.#timer) clearInterval(this.#timer);
  }

  forget(session: string) {
    this.#rooms.delete(session);
  }

  async #load(session: string): Promise<Room> {
    const row = await sessionById(this.ctx.db, session);
    const course = row && (await courseById(this.ctx.db, row.courseId));
    if (!course) throw new Error(`There is no session ${session}.`);
    const layer: Layer = { name: 'course', values: course.limits };
    if (course.limitsBy) Object.assign(layer, { by: course.limitsBy, at: course.limitsAt });
    const room = new Room(this.ctx, session, [layer], (r, events) => this.#tell(r, events));
    await room.load();
    // Nobody is connected to a room that was just read: who still stands in a waiting one has long gone.
    if (room.state.phase === 'waiting') await this.#dropTheMissing(room);
    await renewLease(this.ctx.db, session, this.#owner, this.ctx.now());
    return room;
  }

  #tell(room: Room, events: StoredEvent[]) {
    for (const listener of this.#listeners) listener(room, events);
  }

  async #dropTheMissing(room: Room) {
    await room.happen((state) =>
      Object.values(state.occupants)
        .filter((o) => o.present && !room.connections.get(o.member))
        .map((o) => ({ type: 'left', member: o.member })),
    );
  }

  async #tick() {
    for (const pending of this.#rooms.values()) {
      const room = await pending.catch(() => null);
      if (!room) continue;
      if (room.state.phase === 'live') {
        await renewLease(this.ctx.db, room.session, this.#owner, this.ctx.now()).catch(() => {});
        await this.#closeIfAbandoned(room);
      } else if (!Object.values(room.state.occupants).some((o) => o.present)) this.forget(room.session);
    }
  }

  #overdueSince = new Map<string, number>();

  /** A class whose end has passed and whose teachers are gone is dismissed: nobody is left behind alone. */
  async #closeIfAbandoned(room: Room) {
    const teachers = Object.values(room.state.occupants).some(
      (o) => o.present && (o.role === 'teacher' || o.role === 'assistant'),
    );
    const row = teachers ? null : await sessionById(this.ctx.db, room.session);
    const over = row && (isStanding(row.kind) || this.ctx.now() > row.endsAt + row.lingerMinutes * 60_000);
    if (!over) return void this.#overdueSince.delete(room.session);
    const since = this.#overdueSince.get(room.session) ?? this.ctx.now();
    this.#overdueSince.set(room.session, since);
    if (this.ctx.now() - since > 60_000) await room.happen(() => [{ type: 'dismissed', by: null }]);
  }
}

import type { CommandReply, RoomCommand, RoomEvent, StoredEvent } from '@nimble-bell/core/api';
import type { Layer } from '@nimble-bell/core/limits';
import { decide, evolve, newRoom, type Actor, type RoomState } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { eventsOf, seqOfCommand, storeEvents } from './store';

/** Who hears of new events: the broadcast, the media, the recorder. Called after the events are stored. */
export type RoomListener = (room: Room, events: StoredEvent[]) => void;

/**
 * One room in memory, made from its events and nothing else. Commands are taken one after another: decided, stored,
 * then told.
 */
export class Room {
  state: RoomState;
  readonly events: StoredEvent[] = [];
  /** How many pages each member has open on this room. */
  readonly connections = new Map<string, number>();
  #queue: Promise<unknown> = Promise.resolve();
  /** The commands that were decided lately, and their place. */
  readonly #recent = new Map<string, number>();
  #readAnew = false;

  constructor(
    readonly ctx: Context,
    readonly session: string,
    base: readonly Layer[],
    readonly tell: RoomListener,
  ) {
    this.state = newRoom(base);
  }

  async load(): Promise<void> {
    for (const event of await eventsOf(this.ctx.db, this.session)) this.#take(event);
    this.#readAnew = this.events.length > 0;
  }

  /** Decides a command. One that was decided before (same id) is answered as it was then. */
  command(actor: Actor, command: RoomCommand, id: string): Promise<CommandReply> {
    return this.#inTurn(async () => {
      const before = await this.#seen(id);
      if (before !== null) return { ok: true, seq: before };
      const decision = decide(this.state, actor, command);
      if (!decision.ok) return decision;
      await this.#append(decision.events, id);
      return { ok: true, seq: this.state.seq };
    });
  }

  /** Appends what happened by itself: someone came or went, a recording began. `events` sees the state of its turn. */
  happen(events: (state: RoomState) => RoomEvent[]): Promise<void> {
    return this.#inTurn(() => this.#append(events(this.state), null));
  }

  async #seen(id: string): Promise<number | null> {
    const recent = this.#recent.get(id);
    if (recent !== undefined) return recent;
    // Only a room that was read anew can hold a command that is not in memory.
    if (!this.#readAnew) return null;
    return (await seqOfCommand(this.ctx.db, this.session, id))?.seq ?? null;
  }

  async #append(events: RoomEvent[], id: string | null) {
    if (events.length === 0) return;
    const at = this.ctx.now();
    const stored = events.map((event, i): StoredEvent => ({ ...event, seq: this.state.seq + 1 + i, at }));
    await storeEvents(this.ctx.db, this.session, stored, id);
    for (const event of stored) this.#take(event);
    if (id) this.#remember(id);
    this.tell(this, stored);
  }

  #remember(id: string) {
    this.#recent.set(id, this.state.seq);
    if (this.#recent.size > 5000) this.#recent.delete(this.#recent.keys().next().value!);
  }

  #take(event: StoredEvent) {
    this.state = evolve(this.state, event);
    this.events.push(event);
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.#queue.then(work, work);
    this.#queue = turn.catch(() => {});
    return turn;
  }
}

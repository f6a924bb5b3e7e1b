import { io, type Socket } from 'socket.io-client';
import type { LiveReply, RoomInfo, StoredEvent } from '@nimble-bell/core/api';
import { evolve, placeOf, SEEING, sees, type RoomCommand, type RoomState } from '@nimble-bell/core/room';
import type { Act, Mind } from '@nimble-bell/core/rehearsal';

type Me = RoomInfo['me'];

/** A door that is shut, and a server that is away, are tried again this often, ms. */
const AGAIN_MS = 3000;

/**
 * A stand-in's line to a room: what a student's page has of it, over the same channel, by a link of their own. Keeps
 * the state that the room's events make, and lets a mind act on it.
 */
export class StandInLine {
  readonly #socket: Socket;
  #room: RoomState | null = null;
  #me: Me | null = null;
  #entering = false;
  #early: StoredEvent[] = [];
  #again: NodeJS.Timeout | null = null;
  /** How much of what was done was refused. */
  refused = 0;

  constructor(
    url: string,
    readonly session: string,
    link: string,
    readonly mind: Mind,
  ) {
    this.#socket = io(url, {
      ...{ path: '/live', query: { room: session }, auth: { link }, transports: ['websocket'] },
      ...{ forceNew: true, autoConnect: false, reconnectionDelay: 500, reconnectionDelayMax: 2000 },
    });
    this.#socket.on('connect', () => void this.#enter());
    this.#socket.on('connect_error', () => {
      if (!this.#socket.active) this.#later(() => this.#socket.connect());
    });
    this.#socket.on('disconnect', () => (this.#room = null));
    for (const cause of ['door', 'you']) this.#socket.on(cause, () => void this.#enter());
    this.#socket.on('moved', () => this.#later(() => this.#socket.connect()));
    this.#socket.on('put-out', () => (this.#room = null));
    this.#socket.on('events', (events: StoredEvent[]) => this.#take(events));
  }

  comes() {
    this.#socket.connect();
  }

  /** Lets the mind act on the room as it is at this instant. */
  beat(now: number) {
    if (!this.#room || !this.#me || (this.#me.role !== 'student' && this.#me.role !== 'guest')) return;
    const me = { member: this.#me.member, role: this.#me.role };
    for (const act of this.mind.beat({ room: this.#room, me, now })) this.#does(act);
  }

  #does(act: Act) {
    if (act.do === 'command') return void this.#command(act.command);
    this.#socket.disconnect();
    this.#later(() => this.#socket.connect(), act.ms);
  }

  async #command(command: RoomCommand): Promise<void> {
    const reply = (await this.#socket
      .timeout(AGAIN_MS * 3)
      .emitWithAck('command', { id: crypto.randomUUID(), command })
      .catch(() => null)) as LiveReply<'command'> | null;
    if (reply && !reply.ok) this.refused++;
  }

  #later(work: () => void, ms = AGAIN_MS) {
    if (this.#again) clearTimeout(this.#again);
    this.#again = setTimeout(work, ms);
  }

  async #enter() {
    if (this.#entering) return;
    this.#entering = true;
    const reply = (await this.#socket
      .timeout(AGAIN_MS * 5)
      .emitWithAck('enter', { session: this.session, after: 0 })
      .catch(() => null)) as LiveReply<'enter'> | null;
    this.#entering = false;
    const early = this.#early.splice(0);
    if (!reply?.ok) return this.#later(() => this.#socket.connected && void this.#enter());
    if ('porch' in reply || !reply.room) return;
    this.#me = reply.info.me;
    this.#room = reply.room;
    this.#take(reply.events);
    this.#take(early);
  }

  #take(events: readonly StoredEvent[]) {
    if (this.#entering) return void this.#early.push(...events);
    const saw = this.#sight();
    for (const event of events)
      if (this.#room && event.seq > this.#room.seq) this.#room = evolve(this.#room, event);
    // Of another place, and of those who were not seen, nothing was heard.
    if (this.#sight() !== saw) void this.#enter();
  }

  #sight(): string {
    const [room, me] = [this.#room, this.#me];
    if (!room || !me) return '';
    return [placeOf(room, me.member), ...SEEING.map((what) => sees(room, me, what))].join();
  }
}

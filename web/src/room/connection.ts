import { io, type Socket } from 'socket.io-client';
import type {
  CommandReply,
  EnterReply,
  Refusal,
  RelayOffer,
  RoomCommand,
  RoomInfo,
  StoredEvent,
} from '@nimble-bell/core/api';
import { evolve, newRoom, type RoomState } from '@nimble-bell/core/room';
import { setServerTime } from '../app/clock';

export interface RoomView {
  /** `away`: the connection is lost and comes back by itself. */
  status: 'entering' | 'in' | 'away' | 'refused' | 'left';
  info: RoomInfo | null;
  state: RoomState | null;
  relay: boolean;
  refusal: string | null;
}

type Listener = () => void;
const ANSWER_MS = 5000;
const CATCH_UP_MS = 700;

/**
 * A page's tie to one room: enters, keeps the state that the room's events make, sends commands. After any loss it
 * enters again, asks for what it missed, and sends again what was not answered; the server knows a repeated command.
 */
export class RoomConnection {
  #socket: Socket;
  #view: RoomView = { status: 'entering', info: null, state: null, relay: false, refusal: null };
  #listeners = new Set<Listener>();
  #pending = new Map<string, { command: RoomCommand; resolve: (reply: CommandReply) => void }>();
  #onOffer: (offer: RelayOffer) => void = () => {};
  #onEntered: () => void = () => {};

  constructor(
    readonly session: string,
    link: string | null,
  ) {
    this.#socket = io({
      path: '/live',
      autoConnect: false,
      auth: link ? { link } : {},
      transports: ['websocket'],
      reconnectionDelay: 200,
      reconnectionDelayMax: 800,
      randomizationFactor: 0.2,
    });
    this.#socket.on('connect', () => void this.#enter());
    this.#socket.on('disconnect', () => {
      if (this.#view.status === 'in') this.#set({ status: 'away', relay: false });
    });
    this.#socket.on('connect_error', (error: Error & { data?: unknown }) => {
      // A refusal of the server ends it; a server that is not there is tried again.
      if (!this.#socket.active) this.#set({ status: 'refused', refusal: error.message });
    });
    this.#socket.on('put-out', ({ message }: { message: string }) =>
      this.#set({ status: 'refused', refusal: message }),
    );
    this.#socket.on('events', (events: StoredEvent[]) => this.#take(events));
    this.#socket.on('offer', (offer: RelayOffer) => this.#onOffer(offer));
    this.#socket.on('relay', ({ available }: { available: boolean }) => {
      this.#set({ relay: available });
      if (available && this.#view.status === 'in') this.#onEntered();
    });
  }

  get view(): RoomView {
    return this.#view;
  }

  readonly subscribe = (listener: Listener) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = () => this.#view;

  /** The media's part: its offers, and each time that it has to begin anew. */
  attachMedia(onOffer: (offer: RelayOffer) => void, onEntered: () => void) {
    this.#onOffer = onOffer;
    this.#onEntered = onEntered;
    if (this.#view.status === 'in') onEntered();
  }

  command(command: RoomCommand): Promise<CommandReply> {
    const id = crypto.randomUUID();
    return new Promise((resolve) => {
      this.#pending.set(id, { command, resolve });
      if (this.#view.status === 'in') this.#send(id);
    });
  }

  /** A message about media; null where there was no answer. */
  async ask<T>(
    name: string,
    body: object = {},
  ): Promise<({ ok: true } & T) | { ok: false; refusal: Refusal } | null> {
    try {
      return (await this.#socket.timeout(ANSWER_MS * 2).emitWithAck(name, body)) as { ok: true } & T;
    } catch {
      return null;
    }
  }

  open() {
    this.#socket.connect();
  }

  close() {
    this.#socket.emit('leave', {});
    this.#set({ status: 'left' });
    // The goodbye is on its way before the line is cut.
    setTimeout(() => this.#socket.disconnect(), 150);
  }

  #send(id: string) {
    const pending = this.#pending.get(id);
    if (!pending) return;
    this.#socket.emit('command', { id, command: pending.command }, (reply: CommandReply) => {
      this.#pending.delete(id);
      pending.resolve(reply);
      if (reply.ok) setTimeout(() => this.#catchUp(reply.seq), CATCH_UP_MS);
    });
  }

  /** What was done and not heard of is asked for. */
  #catchUp(seq: number) {
    const { state, status } = this.#view;
    if (status === 'in' && state && state.seq < seq) void this.#enter();
  }

  async #enter() {
    const reply = (await this.#socket
      .timeout(ANSWER_MS)
      .emitWithAck('enter', { session: this.session, after: this.#view.state?.seq ?? 0 })
      .catch(() => null)) as EnterReply | null;
    if (!reply) return void (this.#socket.connected && this.#enter());
    if (!reply.ok) {
      if (this.#view.status !== 'left') this.#set({ status: 'refused', refusal: reply.refusal.message });
      return;
    }
    setServerTime(reply.now);
    this.#set({
      info: reply.info,
      relay: reply.info.relay,
      state: this.#view.state ?? newRoom(reply.info.base),
    });
    this.#take(reply.events);
    // Events that are not for this person leave gaps: what was not sent has been seen all the same.
    const state = this.#view.state!;
    this.#set({ status: 'in', state: { ...state, seq: Math.max(state.seq, reply.seq) } });
    for (const id of this.#pending.keys()) this.#send(id);
    this.#onEntered();
  }

  #take(events: readonly StoredEvent[]) {
    let { state } = this.#view;
    if (!state) return;
    for (const event of events) if (event.seq > state.seq) state = evolve(state, event);
    this.#set({ state });
  }

  #set(change: Partial<RoomView>) {
    this.#view = { ...this.#view, ...change };
    for (const listener of this.#listeners) listener();
  }
}

import { io, type Socket } from 'socket.io-client';
import type { TrackKind } from '@nimble-bell/core/limits';
import type {
  Answers,
  BodyOf,
  ClientMessages,
  CommandReply,
  DocumentChange,
  Entered,
  LiveReply,
  PageMessage,
  PorchInfo,
  RelayOffer,
  RoomCommand,
  RoomInfo,
  ServerMessages,
  Signal,
  StoredEvent,
} from '@nimble-bell/core/api';
import { evolve, newRoom, placeOf, SEEING, sees, type RoomState } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { inListOrder } from '../../app/order';
import { setServerTime } from '../../app/clock';
import { Voices } from './voices';

export interface RoomView {
  /** `away`: the connection is lost and comes back by itself. */
  status: 'entering' | 'porch' | 'in' | 'away' | 'refused' | 'left';
  /** While one waits at the door. */
  porch: PorchInfo | null;
  info: RoomInfo | null;
  state: RoomState | null;
  relay: boolean;
  refusal: string | null;
  /** Refused for now alone: the door opens later, and is asked again. */
  shut: boolean;
}

type Listener = () => void;
const ANSWER_MS = 5000;
/** A server that cannot read its database answers nothing of use: it is asked for longer. */
const PATIENT_MS = 30_000;
const CATCH_UP_MS = 700;
const AGAIN_MS = 600;
/** As many events are taken before the page may answer its person. */
const AT_ONCE = 4;
/** A shut door is asked again this often. */
const SHUT_MS = 5000;
/** Refusals that pass: the server is in trouble, or the room is just changing hands. */
const PASSING: ReadonlySet<string> = new Set(['internal', 'away', 'elsewhere', 'too-many']);

/**
 * A page's tie to one room: enters, keeps the state that the room's events make, sends commands. After any loss it
 * enters again, asks for what it missed, and sends again what was not answered; the server knows a repeated command.
 */
export class RoomConnection {
  #socket: Socket<ServerMessages, ClientMessages>;
  #view: RoomView = {
    ...{ status: 'entering', info: null, state: null, porch: null },
    ...{ relay: false, refusal: null, shut: false },
  };
  #listeners = new Set<Listener>();
  #pending = new Map<string, { command: RoomCommand; resolve: (reply: CommandReply) => void }>();
  #onOffer: (offer: RelayOffer) => void = () => {};
  #onEntered: () => void = () => {};
  #onPassed: (kind: TrackKind) => void = () => {};
  #onDocument = new Set<(change: DocumentChange) => void>();
  /** Who is heard now. */
  readonly voices = new Voices();
  #onSignal = new Set<(signal: Signal & { member: string }) => void>();
  #entering = false;
  /** What one may see of the others is another: all of it is asked for again. */
  #anew = false;
  /** What was heard while the room was being entered: it may overtake the answer, and comes after what that holds. */
  #early: StoredEvent[] = [];
  /** Events that are taken in a moment. */
  #waiting: StoredEvent[] = [];

  constructor(
    readonly session: string,
    link: string | null,
  ) {
    this.#socket = io({
      path: '/live',
      autoConnect: false,
      auth: link ? { link } : {},
      // The room stands in the address, so that the line can be joined to the server that holds it.
      query: { room: session },
      transports: ['websocket'],
      reconnectionDelay: 200,
      reconnectionDelayMax: 800,
      randomizationFactor: 0.2,
    });
    this.#socket.on('connect', () => void this.#enter());
    this.#socket.on('disconnect', () => this.#away());
    this.#socket.on('connect_error', (error: Error & { data?: { code?: string } }) => {
      if (this.#socket.active) return;
      if (PASSING.has(error.data?.code ?? '')) return void this.#later(() => this.#socket.connect());
      // A refusal of the server ends it; a server that is not there is tried again.
      this.#set({ status: 'refused', refusal: error.message });
    });
    this.#socket.on('door', () => void this.#enter());
    this.#socket.on('porch-word', ({ text: word }) => {
      const { porch } = this.#view;
      if (porch) this.#set({ porch: { ...porch, word } });
    });
    this.#socket.on('put-out', ({ message }) =>
      this.#set({ status: 'refused', refusal: message, shut: false }),
    );
    this.#socket.on('moved', () => this.#later(() => this.#socket.connect()));
    this.#socket.on('events', (events) => {
      if (this.#entering) this.#early.push(...events);
      else this.#heed(events);
    });
    this.#socket.on('document', (change) => {
      for (const listener of this.#onDocument) listener(change);
    });
    this.#socket.on('people', (people) => this.#inform({ people: inListOrder(people) }));
    this.#socket.on('you', (me) => {
      this.#inform({ me });
      // Another role hears other things: the room is asked for as it is for them now.
      this.#set({ state: null });
      void this.#enter();
    });
    this.#socket.on('voice', (voice) => this.voices.heed(voice));
    this.#socket.on('signal', (signal) => this.#onSignal.forEach((listener) => listener(signal)));
    this.#socket.on('offer', (offer) => this.#onOffer(offer));
    this.#socket.on('passed', ({ kind }) => this.#onPassed(kind));
    this.#socket.on('relay', ({ available }) => {
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

  /** The media's part: its offers, each time that it has to begin anew, and what of its own is passed on from then on. */
  attachMedia(
    onOffer: (offer: RelayOffer) => void,
    onEntered: () => void,
    onPassed: (kind: TrackKind) => void = () => {},
  ) {
    this.#onOffer = onOffer;
    this.#onPassed = onPassed;
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

  /** Something that is only now; lost if it is lost. */
  readonly signal = (signal: Signal) => {
    if (this.#view.status === 'in') this.#socket.volatile.emit('signal', signal, () => {});
  };
  readonly onDocument = (listener: (change: DocumentChange) => void) => {
    this.#onDocument.add(listener);
    return () => this.#onDocument.delete(listener);
  };
  readonly onSignal = (listener: (signal: Signal & { member: string }) => void) => {
    this.#onSignal.add(listener);
    return () => this.#onSignal.delete(listener);
  };

  /** A message that is no command; null where there was no answer. */
  async ask<K extends Exclude<PageMessage, 'enter' | 'command'>>(
    name: K,
    body: BodyOf<K>,
  ): Promise<LiveReply<K> | null> {
    const asked = this.#socket.timeout(ANSWER_MS * 2) as unknown as {
      emitWithAck: (name: string, body: unknown) => Promise<LiveReply<K>>;
    };
    return asked.emitWithAck(name, body).catch(() => null);
  }

  open() {
    this.#socket.connect();
  }

  /** A page that slept, or was without a network, does not wait for its turn to try again. */
  readonly wake = () => {
    if (this.#view.status === 'away' && !this.#socket.connected) this.#socket.disconnect().connect();
  };

  close() {
    this.#socket.emit('leave', {}, () => {});
    this.#set({ status: 'left' });
    // The goodbye is on its way before the line is cut.
    setTimeout(() => this.#socket.disconnect(), 150);
  }

  #later(work: () => void) {
    setTimeout(() => {
      if (this.#view.status !== 'left') work();
    }, AGAIN_MS);
  }

  #away() {
    if (this.#view.status === 'in') this.#set({ status: 'away', relay: false });
  }

  #send(id: string) {
    const pending = this.#pending.get(id);
    if (!pending) return;
    this.#socket.emit('command', { id, command: pending.command }, (reply) => {
      // It is sent again, as the same command, when the room is entered again.
      if (!reply.ok && reply.refusal.code === 'elsewhere') return;
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
    if (this.#entering) return;
    this.#entering = true;
    const anew = this.#anew;
    const goesOn = anew && this.#view.status === 'in';
    this.#anew = false;
    this.#early = this.#waiting.splice(0);
    const asked = this.#socket.timeout(PATIENT_MS) as unknown as {
      emitWithAck: (name: 'enter', body: object) => Promise<LiveReply<'enter'>>;
    };
    const body = { session: this.session, after: anew ? 0 : (this.#view.state?.seq ?? 0) };
    const reply = await asked.emitWithAck('enter', body).catch(() => null);
    this.#entering = false;
    // What was not answered is asked for again: a page goes on with no more, and no less, than it may see now.
    if (!reply?.ok) this.#anew ||= anew;
    if (this.#view.status === 'left') return;
    if (reply?.ok) return 'porch' in reply ? this.#waits(reply) : this.#entered(reply, goesOn);
    if (reply && !PASSING.has(reply.refusal.code)) {
      const shut = reply.refusal.code === 'door-shut';
      this.#set({ status: 'refused', refusal: reply.refusal.message, shut });
      // A door that opens later is asked again now and then.
      if (shut) setTimeout(() => this.#view.status === 'refused' && void this.#enter(), SHUT_MS);
      return;
    }
    this.#away();
    this.#later(() => void (this.#socket.connected && this.#enter()));
  }

  #waits({ porch, now }: Extract<Answers['enter'], { porch: PorchInfo }>) {
    setServerTime(now);
    this.#set({ status: 'porch', porch, state: null });
  }

  #entered({ info, room, events, voices, seq, now }: Entered, again: boolean) {
    setServerTime(now);
    this.voices.begin(voices);
    this.#set({
      info: { ...info, people: inListOrder(info.people) },
      relay: info.relay,
      state: room ?? this.#view.state ?? newRoom(),
    });
    this.#take(events);
    // Events that are not for this person leave gaps: what was not sent has been seen all the same.
    const state = this.#view.state!;
    this.#set({ status: 'in', state: { ...state, seq: Math.max(state.seq, seq) } });
    this.#take(this.#early);
    for (const id of this.#pending.keys()) this.#send(id);
    // Sound and picture go on as they are.
    if (!again) this.#onEntered();
    if (this.#anew) void this.#enter();
  }

  /**
   * A class that comes in at once is hundreds of events: they are taken a few at a time, and the page answers its person
   * in between. What comes meanwhile waits its turn.
   */
  #heed(events: readonly StoredEvent[]) {
    const idle = this.#waiting.length === 0;
    this.#waiting.push(...events);
    if (idle) this.#takeSome();
  }

  #takeSome() {
    this.#take(this.#waiting.splice(0, AT_ONCE));
    if (this.#waiting.length) setTimeout(() => this.#takeSome());
  }

  #take(events: readonly StoredEvent[]) {
    let { state } = this.#view;
    if (!state) return;
    const saw = this.#sight();
    for (const event of events) if (event.seq > state.seq) state = evolve(state, event);
    if (state !== this.#view.state) this.#set({ state });
    if (this.#sight() === saw) return;
    this.#anew = true;
    void this.#enter();
  }

  /** What one may see of the others, and where one is: of another place nothing was heard. */
  #sight(): string {
    const { state, info } = this.#view;
    if (!state || !info) return '';
    const place = teaches(info.me.role) ? '' : placeOf(state, info.me.member);
    return [place, ...SEEING.map((what) => sees(state, info.me, what))].join();
  }

  #inform(change: Partial<RoomInfo>) {
    const { info } = this.#view;
    if (info) this.#set({ info: { ...info, ...change } });
  }

  #set(change: Partial<RoomView>) {
    this.#view = { ...this.#view, ...change };
    for (const listener of this.#listeners) listener();
  }
}

import type { Server as HttpServer } from 'node:http';
import { Server } from 'socket.io';
import { PAGE_MESSAGES, type Answers, type BodyOf, type PageMessage } from '@nimble-bell/core/api';
import {
  audience,
  CLASS,
  goneFromDoor,
  isHere,
  knowing,
  may,
  placeOf,
  refusalWords,
  refuse,
  snapshotFor,
  TALK_AT_ONCE,
  type StoredEvent,
  type StoredOf,
} from '@nimble-bell/core/room';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import { linkCode, principalOf, type Principal } from '../../accounts/principal';
import type { Context } from '../../context';
import { AppError, parse } from '../../errors';
import type { MediaRelay } from '../../media/relay';
import { Rounds } from '../effects/rounds';
import { Turns } from '../effects/turns';
import type { Media } from '../effects/media';
import { admit, comerOf, seat } from '../entrance/admit';
import { Facts, type RoomFacts } from '../entrance/info';
import { heedOutside } from '../outside';
import type { Room } from '../room';
import type { Rooms } from '../rooms';
import { addUpdate, updatesOf } from '../store';
import { Allowance, type Allowed } from './allowance';
import { channels, tell, type LiveServer } from './broadcast';
import { RoomRefusal, refusalOf } from './refusal';
import { isOther, standingNow, type Credential } from './rights';
import { Doorkeeper, DOOR_EVENTS, porchFor, sentOutWords } from './doorkeeper';
import { Visits, type LiveSocket, type Visit } from './visits';
import type { MemberRow } from '../../accounts/store';

/** A page that lost its connection has this long to come back before its person has left. */
const GRACE_MS = 4000;
/** Ends of links and sign-ins, and what other servers changed, are noticed this often. */
const CHECK_MS = 1000;

type Handlers = { [K in PageMessage]: (socket: LiveSocket, body: BodyOf<K>) => Promise<Answers[K]> };

/** The live channel: who enters, what they command, and what each may hear. */
export class RoomSocket {
  readonly io: LiveServer;
  readonly facts: Facts;
  readonly #visits = new Visits();
  readonly #door = new Doorkeeper();
  readonly #allowance = new Allowance();
  /** Entering, leaving and the end of a connection are taken in turn for each page. */
  readonly #turns = new Turns();
  readonly #timer: NodeJS.Timeout;
  /** The class list that each room was told last. */
  readonly #told = new WeakMap<Room, string>();
  readonly #checks = new Rounds(() => this.#check());

  constructor(
    readonly ctx: Context,
    http: HttpServer,
    readonly rooms: Rooms,
    readonly media: Media,
    readonly relay: MediaRelay,
  ) {
    this.facts = new Facts(ctx);
    this.io = new Server(http, {
      path: '/live',
      serveClient: false,
      maxHttpBufferSize: 200_000,
      pingInterval: 5000,
      pingTimeout: 5000,
    });
    this.io.use((socket, next) => {
      this.#principal(socket).then(
        () => next(),
        // With a code: a page tells a way in that is no good from a server in trouble.
        (error: Error) => {
          const { refusal } = refusalOf(error, ctx.log);
          next(Object.assign(new Error(refusal.message), { data: refusal }));
        },
      );
    });
    this.io.on('connection', (socket) => this.#serve(socket));
    relay.onChange((available) => this.io.emit('relay', { available }));
    this.#timer = setInterval(() => void this.recheck(), CHECK_MS);
    ctx.signals.on('changed', (heeded) => {
      const done = this.#heedChange().catch((e: unknown) =>
        ctx.log.warn({ why: String(e) }, 'a change was not heeded'),
      );
      heeded.push(done);
    });
    rooms.listen({
      told: (room, events) => this.#tell(room, events),
      lost: (room) => this.#moved(room),
    });
  }

  close() {
    clearInterval(this.#timer);
    return this.io.close();
  }

  #tell(room: Room, events: readonly StoredEvent[]) {
    // Ring-in, dismissal and new settings decide about the door.
    if (events.some((e) => DOOR_EVENTS.has(e.type))) this.facts.forget();
    tell(this.io, room, events);
    this.#door.tell(room, events);
    for (const e of events) if (e.type === 'sentOut') void this.#sendOut(room, e);
    if (events.some((e) => e.type === 'dismissed')) {
      this.#empty(room);
      this.rooms.forget(room.session);
    }
  }

  readonly #handlers: Handlers = {
    enter: (socket, body) => this.#turns.take(socket.id, () => this.#enter(socket, body)),
    leave: (socket) => this.#turns.take(socket.id, async () => (await this.#goAway(socket.id, 0), {})),
    command: async (socket, { id, command }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member, command.type === 'draw' ? 'strokes' : 'commands');
      const outcome = await room.command({ member: member.id, role: member.role }, command, id);
      if (!outcome.ok) throw new RoomRefusal(outcome.refusal);
      return { seq: outcome.seq };
    },
    publish: async (socket, { sdp }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member, 'commands');
      if (member.role === 'observer') throw new AppError('forbidden', 'Observers watch and listen.');
      this.#needRelay();
      return { sdp: await this.media.publish(room, member.id, sdp) };
    },
    unpublish: async (socket) => {
      const { room, member } = this.#visit(socket);
      await this.media.unpublish(room, member.id);
      return {};
    },
    watch: async (socket) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member, 'commands');
      this.#needRelay();
      await this.media.watch(room, socket.id, member.id, (offer) => socket.emit('offer', offer));
      return {};
    },
    answer: async (socket, { sdp }) => {
      this.#visit(socket);
      await this.media.answer(socket.id, sdp);
      return {};
    },
    signal: async (socket, signal) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member, 'signals');
      this.#needMay(room, member, signal.what === 'pointer' ? 'draw' : 'writeToClass');
      const place = channels.place(room.session, placeOf(room.state, member.id));
      socket.to(place).volatile.emit('signal', { ...signal, member: member.id });
      return {};
    },
    earlier: async (socket, { before }) => {
      const { room, member } = this.#visit(socket);
      const viewer = { member: member.id, role: member.role };
      const { messages } = room.state.talk;
      const own = snapshotFor(
        { ...room.state, talk: { earlier: 0, messages: messages.filter((m) => m.seq < before) } },
        viewer,
      );
      return { messages: own.talk.messages.slice(-TALK_AT_ONCE) as never, earlier: own.talk.earlier };
    },
    documentOpen: async (socket, { place, name }) => {
      const { room, member } = this.#visit(socket);
      if (place !== placeOf(room.state, member.id)) throw new AppError('forbidden');
      const updates = await updatesOf(this.ctx.db, { session: room.session, place, name });
      return { updates: updates.map((u) => u.toString('base64')) };
    },
    documentUpdate: async (socket, { place, name, update }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member, 'strokes');
      this.#needMay(room, member, 'writeNotes');
      if (place !== placeOf(room.state, member.id)) throw new AppError('forbidden');
      const of = { session: room.session, place, name };
      await addUpdate(this.ctx.db, of, member.id, Buffer.from(update, 'base64'));
      socket.to(channels.place(room.session, place)).emit('document', { place, name, update });
      return {};
    },
  };

  #serve(socket: LiveSocket) {
    for (const name of Object.keys(PAGE_MESSAGES) as PageMessage[])
      socket.on(
        name as never,
        ((body: unknown, ack: unknown) => void this.#answer(socket, name, body, ack)) as never,
      );
    socket.on('disconnect', () => {
      void this.#turns
        .take(socket.id, () => this.#goAway(socket.id, GRACE_MS))
        .catch((error: unknown) => this.ctx.log.error(error, 'a departure'));
    });
  }

  /** Every message is answered: with its result, or with a refusal in words. */
  async #answer(socket: LiveSocket, name: PageMessage, body: unknown, ack: unknown) {
    const reply = typeof ack === 'function' ? ack : typeof body === 'function' ? body : () => {};
    try {
      const sent = typeof body === 'function' ? {} : body;
      const parsed = parse(PAGE_MESSAGES[name] as never, sent ?? {});
      reply({ ok: true, ...(await this.#handlers[name](socket, parsed)) });
    } catch (error) {
      reply(refusalOf(error, this.ctx.log));
    }
  }

  #visit(socket: LiveSocket): Visit {
    const visit = this.#visits.get(socket.id);
    if (!visit) throw new AppError('forbidden', 'You are not in the room.');
    return visit;
  }
  #needRelay() {
    if (!this.relay.available) throw new AppError('not-ready', 'Sound and picture are away for the moment.');
  }
  #needMay(room: Room, member: MemberRow, capability: Parameters<typeof may>[2]) {
    const actor = { member: member.id, role: member.role };
    if (!may(room.state, actor, capability).allowed)
      throw new RoomRefusal(refuse('closed', refusalWords(room.state, actor, capability)));
  }
  #spend(member: MemberRow, what: Allowed) {
    if (!this.#allowance.take(member.id, what, performance.now())) throw new RoomRefusal(refuse('too-many'));
  }

  #principal(socket: LiveSocket): Promise<Principal> {
    const { link } = socket.handshake.auth as { link?: unknown };
    const headers = { ...socket.handshake.headers };
    if (typeof link === 'string' && link) headers.authorization = `Link ${linkCode(link)}`;
    return principalOf(this.ctx, headers);
  }

  async #enter(socket: LiveSocket, { session, after }: BodyOf<'enter'>): Promise<Answers['enter']> {
    // Who somebody is is asked anew at every entering: nothing is remembered from the handshake.
    const principal = await this.#principal(socket);
    const { member, about } = await admit(this.ctx, this.facts, principal, session);
    const known = this.#visits.get(socket.id);
    if (known && (known.room.session !== session || known.member.id !== member.id))
      await this.#depart(socket.id, 0);
    const room = await this.rooms.room(session);
    this.#door.goes(socket.id);
    const credential: Credential =
      principal.kind === 'link'
        ? { kind: 'link', code: member.link }
        : { kind: 'account', tokenHash: principal.tokenHash };
    if (!this.#visits.get(socket.id)) this.#visits.add({ socket, room, member, credential });
    else Object.assign(this.#visits.get(socket.id)!, { member, credential });
    try {
      if ((await seat(this.ctx, room, member)) === 'knocks')
        return await this.#wait(socket, room, member, about);
    } catch (error) {
      await this.#depart(socket.id, 0);
      throw error;
    }
    // From here on without a pause: nothing is told between what is read and joining those who are told.
    this.#join(this.#visits.get(socket.id) ?? { socket, room, member, credential });
    return this.#roomFor(room, member, about, after);
  }

  /** Whoever knocks is no visitor yet. */
  async #wait(
    socket: LiveSocket,
    room: Room,
    member: MemberRow,
    about: RoomFacts,
  ): Promise<Answers['enter']> {
    await this.#depart(socket.id, 0);
    this.#door.wait({ socket, room, member: member.id });
    this.#spend(member, 'commands');
    const now = this.ctx.now();
    return { porch: porchFor(room, member, about, now), now };
  }

  async #sendOut(room: Room, event: StoredOf<'sentOut'>) {
    for (const visit of this.#visits.in(room).filter((v) => v.member.id === event.member))
      await this.#putOut(visit, sentOutWords(event)).catch((e: unknown) =>
        this.ctx.log.error(e, 'putting out'),
      );
  }

  /** A page goes from the room or from its door; after a while, or at once, its person has too. */
  async #goAway(socketId: string, grace: number) {
    const waited = this.#door.goes(socketId);
    if (waited) {
      const { room, member } = waited;
      await this.#after(grace, 'a knock', async () => {
        if (!this.#door.waits(room, member)) await room.happen((state) => goneFromDoor(state, member));
      });
    }
    await this.#depart(socketId, grace);
  }

  /** Does it at once, or in a while; what is done in a while and fails is logged. */
  async #after(grace: number, what: string, work: () => Promise<void>) {
    if (grace === 0) return work();
    setTimeout(
      () => void work().catch((e: unknown) => this.ctx.log.warn({ why: String(e) }, what)),
      grace,
    ).unref();
  }

  #roomFor(room: Room, member: MemberRow, about: RoomFacts, after: number): Answers['enter'] {
    const viewer = { member: member.id, role: member.role };
    const missed = room.since(after);
    const { session, course, zone, people } = about;
    return {
      info: { session, course, zone, people, me: viewer, relay: this.relay.available },
      room: missed ? null : snapshotFor(room.state, viewer),
      events: (missed ?? []).filter((e) => audience(e, viewer, room.state) !== null),
      seq: room.state.seq,
      now: this.ctx.now(),
    };
  }

  #join({ socket, room: { session }, member }: Visit) {
    const staff = channels.staff(session);
    void socket.join([
      channels.room(session),
      channels.place(session, CLASS),
      channels.member(session, member.id),
    ]);
    if (teaches(member.role)) void socket.join(staff);
    else void socket.leave(staff);
  }

  async #depart(socketId: string, grace: number) {
    const ended = this.#visits.remove(socketId);
    if (!ended) return;
    const { room, member, socket } = ended.visit;
    for (const name of [...socket.rooms]) if (name !== socket.id) void socket.leave(name);
    await this.media.unwatch(socketId);
    if (!ended.last) return;
    const leave = () =>
      room.happen((state) =>
        isHere(state, member.id) && !room.connections.has(member.id)
          ? [{ type: 'left', member: member.id }]
          : [],
      );
    return this.#after(grace, 'a departure', leave);
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
    await this.#tellPeople(new Set(others.map((o) => o.visit.room)));
  }

  async #apply(visit: Visit, member: MemberRow | null) {
    const { room, socket } = visit;
    if (this.#visits.get(socket.id) !== visit) return;
    const about = member && (await this.facts.of(room.session));
    if (!member || !about || !isFor(targetOf(about.row), member))
      return this.#putOut(
        visit,
        visit.credential.kind === 'link'
          ? 'Your link is no longer good for this class.'
          : 'You are not signed in as somebody of this class any more.',
      );
    visit.member = member;
    this.#join(visit);
    await room.happen((state) => knowing(state, comerOf(member)));
    socket.emit('you', { member: member.id, role: member.role });
  }

  async #putOut({ socket, room, member }: Visit, message: string) {
    socket.emit('put-out', { message });
    const others = this.#visits.in(room).some((v) => v.member.id === member.id && v.socket.id !== socket.id);
    await this.#depart(socket.id, 0);
    if (!others) await this.media.unpublish(room, member.id);
    socket.disconnect(true);
  }

  /** Something was written: who is in a room, what holds there, and the list beside it are as they are now. */
  async #heedChange() {
    this.facts.forget();
    await this.recheck();
    const rooms = new Set(this.#visits.all().map((v) => v.room));
    for (const room of rooms) await heedOutside(this.ctx, room);
    await this.#tellPeople(rooms);
  }

  /** The class list as it is now goes to those in these rooms, where it is another one. */
  async #tellPeople(rooms: ReadonlySet<Room>) {
    for (const room of rooms) {
      const { people } = await this.facts.of(room.session);
      const list = JSON.stringify(people);
      if (this.#told.get(room) !== list) this.io.to(channels.room(room.session)).emit('people', people);
      this.#told.set(room, list);
    }
  }

  #empty(room: Room) {
    for (const { socket } of this.#visits.in(room)) {
      this.#visits.remove(socket.id);
      for (const name of [...socket.rooms]) if (name !== socket.id) void socket.leave(name);
    }
    room.connections.clear();
  }

  /** Another server has this room: its pages connect anew, and are taken there. */
  #moved(room: Room) {
    this.#door.moved(room);
    for (const { socket } of this.#visits.in(room)) {
      this.#visits.remove(socket.id);
      socket.emit('moved');
      socket.disconnect(true);
    }
    void this.media.close(room).catch((error: unknown) => this.ctx.log.warn(String(error)));
  }
}

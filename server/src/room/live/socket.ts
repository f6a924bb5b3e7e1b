import type { Server as HttpServer } from 'node:http';
import type { TrackKind } from '@nimble-bell/core/limits';
import { Server } from 'socket.io';
import {
  PAGE_MESSAGES,
  type Answers,
  type BodyOf,
  type PageMessage,
  type RoomCommand,
} from '@nimble-bell/core/api';
import {
  audience,
  isAt,
  may,
  peopleFor,
  placeOf,
  readsNotes,
  refusalWords,
  refuse,
  sends,
  snapshotFor,
  TALK_AT_ONCE,
  type Deck,
  type StoredEvent,
} from '@nimble-bell/core/room';
import { attachedById } from '../../attached/store';
import { linkCode, principalOf, type Principal } from '../../accounts/principal';
import type { Context } from '../../context';
import { teaches } from '@nimble-bell/core/roster';
import { refuseTeachersName } from '../../roster/names';
import { AppError, parse } from '../../errors';
import type { MediaRelay } from '../../media/relay';
import { Turns } from '../../turns';
import type { Media } from '../effects/media';
import { memberOf } from '../effects/publishers';
import { admit } from '../entrance/admit';
import { Attendance, GRACE_MS } from '../entrance/attendance';
import { porchFor } from '../entrance/doorkeeper';
import type { RoomFacts } from '../entrance/info';
import type { Credential } from '../entrance/rights';
import type { Visit } from '../entrance/visits';
import type { Room } from '../room';
import type { Rooms } from '../rooms';
import { needGiven } from '../../materials/said';
import { documentThen, knownDocument, openDocument, takeUpdate } from '../../notes/shared';
import { Allowance, type Allowed } from './allowance';
import { channels, tell, type LiveServer } from './broadcast';
import { PageDevice, type LiveSocket } from './page';
import { Voices } from './voices';
import { RoomRefusal, refusalOf } from './refusal';
import type { MemberRow } from '../../accounts/store';
import { needFilm } from '../../film/films';
import { readDeck } from '../../slides/decks';
import { filesNamed } from '../../slides/store';

type Handlers = { [K in PageMessage]: (socket: LiveSocket, body: BodyOf<K>) => Promise<Answers[K]> };

/** What a command takes of somebody's allowance, where it is not one of their commands. */
const ALLOWED: Partial<Record<RoomCommand['type'], Allowed>> = {
  ...{ draw: 'strokes', markSlide: 'strokes' },
  putPicture: 'pictures',
};

/** What somebody needs to be seen at it. */
const NEEDED = { pointer: 'draw', typing: 'writeToClass', caret: 'writeNotes' } as const;

const needCaptioner = ({ state }: Room, { id }: MemberRow) => {
  if (!state.captions.writers.includes(id)) throw new RoomRefusal(refuse('no-captioner'));
};

/** The live channel: who enters, what they command, and what each may hear. */
export class RoomSocket {
  readonly io: LiveServer;
  readonly attendance: Attendance;
  readonly #devices = new Map<string, PageDevice>();
  readonly #allowance = new Allowance();
  readonly #voices = new Voices();
  /** Entering, leaving and the end of a connection are taken in turn for each page. */
  readonly #turns = new Turns();

  constructor(
    readonly ctx: Context,
    http: HttpServer,
    readonly rooms: Rooms,
    readonly media: Media,
    readonly relay: MediaRelay,
    /** What there is of a program that writes captions, in words. */
    readonly captioner: string | null = null,
  ) {
    this.attendance = new Attendance(
      ctx,
      rooms,
      media,
      (device, people) => void this.#devices.get(device)?.socket.emit('people', people),
    );
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
    relay.onVoice((session, publisher, heard) => void this.#heard(session, memberOf(publisher), heard));
    rooms.listen({
      told: (room, events) => {
        this.#move(room, events);
        tell(this.io, room, events);
        for (const e of events)
          if (e.type === 'microphone' && this.#voices.anew(room.session, e.member))
            this.#tellVoice(room, e.member, null);
      },
    });
  }

  close() {
    this.attendance.close();
    return this.io.close();
  }

  readonly #handlers: Handlers = {
    enter: (socket, body) => this.#turns.take(socket.id, () => this.#enter(socket, body)),
    leave: (socket) =>
      this.#turns.take(socket.id, async () => (await this.attendance.goAway(socket.id, 0), {})),
    command: async (socket, { id, command }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, ALLOWED[command.type] ?? 'commands');
      if (command.type === 'rename')
        await refuseTeachersName(this.ctx.db, member.courseId, command.name, command.member);
      if (command.type === 'showSlides' && teaches(member.role)) await this.#needDeck(member, command.deck);
      if (command.type === 'showFilm' && teaches(member.role))
        await needFilm(this.ctx.db, { course: member.courseId, session: room.session }, command);
      if (command.type === 'layTables' && teaches(member.role))
        await needGiven(this.ctx.db, { course: member.courseId, session: room.session }, command.files ?? []);
      if (command.type === 'letListen' && command.on && !this.captioner)
        throw new AppError('not-ready', 'There is no program here that writes captions.');
      if (command.type === 'say' && command.file) await this.#needOwn(room, member, command.file);
      const outcome = await room.command({ member: member.id, role: member.role }, command, id);
      if (!outcome.ok) throw new RoomRefusal(outcome.refusal);
      return { seq: outcome.seq };
    },
    publish: async (socket, { sdp }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'commands');
      if (member.role === 'observer') throw new AppError('forbidden', 'Observers watch and listen.');
      this.#needRelay();
      const passed = (kind: TrackKind) => void socket.emit('passed', { kind });
      return { sdp: await this.media.publish(room, member.id, sdp, 'page', passed) };
    },
    unpublish: async (socket) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'commands');
      await this.media.unpublish(room, member.id);
      return {};
    },
    watch: async (socket, { cameras, small }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'commands');
      this.#needRelay();
      await this.media.watch(room, socket.id, member.id, {
        offer: (offer) => socket.emit('offer', offer),
        // As if the relay had gone and come: a page that answers begins anew.
        dropped: () => socket.emit('relay', { available: this.relay.available }),
        looks: cameras ? { cameras, small } : null,
      });
      return {};
    },
    look: async (socket, looks) => {
      const { member } = this.#visit(socket);
      this.#spend(member.id, 'signals');
      await this.media.look(socket.id, looks);
      return {};
    },
    answer: async (socket, { sdp }) => {
      this.#spend(this.#visit(socket).member.id, 'signals');
      await this.media.answer(socket.id, sdp);
      return {};
    },
    signal: async (socket, signal) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'signals');
      const toStaff = signal.what === 'hidden' || signal.what === 'line';
      if (signal.what === 'captioning') needCaptioner(room, member);
      else if (!toStaff) this.#needMay(room, member, NEEDED[signal.what]);
      const to = toStaff
        ? channels.staff(room.session)
        : channels.place(room.session, placeOf(room.state, member.id));
      socket.to(to).volatile.emit('signal', { ...signal, member: member.id });
      return {};
    },
    earlier: async (socket, { before }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'commands');
      const viewer = { member: member.id, role: member.role };
      const { messages } = room.state.talk;
      const own = snapshotFor(
        { ...room.state, talk: { earlier: 0, unsaid: [], messages: messages.filter((m) => m.seq < before) } },
        viewer,
      );
      return { messages: own.talk.messages.slice(-TALK_AT_ONCE) as never, earlier: own.talk.earlier };
    },
    documentOpen: async (socket, { place, name }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'commands');
      knownDocument(name);
      if (!readsNotes(room.state, { member: member.id, role: member.role }, place))
        throw new AppError('forbidden');
      const of = { session: room.session, place, name };
      const { updates, ...known } = await openDocument(this.ctx.db, of);
      return { updates: updates.map((u) => u.toString('base64')), ...known };
    },
    documentThen: async (socket, { place, name, at }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'commands');
      knownDocument(name);
      if (!teaches(member.role)) throw new AppError('forbidden');
      return documentThen(this.ctx.db, { session: room.session, place, name }, at);
    },
    documentUpdate: async (socket, { place, name, update }) => {
      const { room, member } = this.#visit(socket);
      this.#spend(member.id, 'strokes');
      this.#needMay(room, member, 'writeNotes');
      if (place !== placeOf(room.state, member.id)) throw new AppError('forbidden');
      const of = { session: room.session, place, name };
      knownDocument(name);
      const { id } = member;
      const known = await takeUpdate(this.ctx.db, of, id, Buffer.from(update, 'base64'), this.ctx.now());
      socket.to(channels.place(room.session, place)).emit('document', { place, name, update, ...known });
      return known;
    },
  };

  #serve(socket: LiveSocket) {
    this.#devices.set(socket.id, new PageDevice(socket, this.media));
    for (const name of Object.keys(PAGE_MESSAGES) as PageMessage[])
      socket.on(
        name as never,
        ((body: unknown, ack: unknown) => void this.#answer(socket, name, body, ack)) as never,
      );
    socket.on('disconnect', () => {
      this.#devices.delete(socket.id);
      this.#allowance.forget(socket.id);
      void this.#turns
        .take(socket.id, () => this.attendance.goAway(socket.id, GRACE_MS))
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

  /** Who went to another place of the room hears that one before anything is told of it. */
  #move({ session, state }: Room, events: readonly StoredEvent[]) {
    for (const event of events)
      if (event.type === 'wentTo')
        for (const { member } of event.moves)
          for (const id of this.io.sockets.adapter.rooms.get(channels.member(session, member)) ?? [])
            this.#devices.get(id)?.goTo(session, placeOf(state, member));
  }

  /** Who speaks is told where they are, and to those who teach. */
  async #heard(session: string, member: string, heard: boolean) {
    const since = this.#voices.heed(session, member, heard, this.ctx.now());
    const room = await this.rooms.held(session);
    if (room) this.#tellVoice(room, member, since);
  }

  #tellVoice({ session, state }: Room, member: string, since: number | null) {
    const to = [channels.place(session, placeOf(state, member)), channels.staff(session)];
    this.io.to(to).volatile.emit('voice', { member, since });
  }

  #visit(socket: LiveSocket): Visit {
    const visit = this.attendance.visit(socket.id);
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
  /** Whoever says a file has sent it up, in this room. */
  async #needOwn(room: Room, member: MemberRow, file: string) {
    const sent = await attachedById(this.ctx.db, file);
    if (sent?.session !== room.session || sent.member !== member.id)
      throw new AppError('not-found', 'There is no such file.');
  }
  /** What is shown is a file of this course, as it is and by its name. */
  async #needDeck(member: MemberRow, deck: Deck) {
    const made = await readDeck(this.ctx, deck.id);
    const its = await filesNamed(this.ctx.db, member.courseId, deck);
    if (!its || made?.kind !== deck.kind || made.pages !== deck.pages)
      throw new AppError('not-found', 'There is no such file.');
  }
  #spend(whose: string, what: Allowed) {
    if (!this.#allowance.take(whose, what, performance.now())) throw new RoomRefusal(refuse('too-many'));
  }

  #principal(socket: LiveSocket): Promise<Principal> {
    const { link } = socket.handshake.auth as { link?: unknown };
    const headers = { ...socket.handshake.headers };
    if (typeof link === 'string' && link) headers.authorization = `Link ${linkCode(link)}`;
    return principalOf(this.ctx, headers);
  }

  async #enter(socket: LiveSocket, { session, after }: BodyOf<'enter'>): Promise<Answers['enter']> {
    // Before anything is read for it: by this line, and by whoever it is over all of theirs.
    this.#spend(socket.id, 'entries');
    // Who somebody is is asked anew at every entering: nothing is remembered from the handshake.
    const principal = await this.#principal(socket);
    const { member, about } = await admit(this.ctx, this.attendance.facts, principal, session);
    this.#spend(member.id, 'entries');
    const credential: Credential =
      principal.kind === 'link'
        ? { kind: 'link', code: member.link }
        : { kind: 'account', tokenHash: principal.tokenHash };
    const device = this.#devices.get(socket.id);
    if (!device) throw new AppError('forbidden', 'The line is gone.');
    const stands = await this.attendance.enter(device, session, { member, credential }, (room) =>
      this.#roomFor(room, member, about, after),
    );
    if (stands.in) return stands.read;
    const now = this.ctx.now();
    return { porch: porchFor(stands.room, member, about, now), now };
  }

  #roomFor(room: Room, member: MemberRow, about: RoomFacts, after: number): Answers['enter'] {
    const viewer = { member: member.id, role: member.role };
    const missed = room.since(after);
    const { session, course, zone, rehearsal } = about;
    const people = peopleFor(room.state, viewer, about.people);
    return {
      info: {
        ...{ session, course, zone, people, me: viewer, relay: this.relay.available },
        ...(this.captioner ? { captioner: this.captioner } : {}),
        ...(rehearsal ? { rehearsal } : {}),
      },
      room: missed ? null : snapshotFor(room.state, viewer),
      events: (missed ?? []).flatMap((e) => audience(e, viewer, room.state) ?? []),
      voices: this.#voices.in(room.session).flatMap(([of, since]) => {
        const heard = sends(room.state, of, 'sound') && isAt(room.state, viewer, placeOf(room.state, of));
        return heard ? [{ member: of, since }] : [];
      }),
      seq: room.state.seq,
      now: this.ctx.now(),
    };
  }
}

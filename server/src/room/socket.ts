import type { Server as HttpServer } from 'node:http';
import { Server, type Socket } from 'socket.io';
import {
  CommandMessage,
  EnterMessage,
  SdpMessage,
  type CommandReply,
  type RoomInfo,
  type StoredEvent,
} from '@nimble-bell/core/api';
import { instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { doorFor, type DoorState } from '@nimble-bell/core/door';
import { teaches } from '@nimble-bell/core/limits';
import { audience, audienceOf } from '@nimble-bell/core/room';
import { memberIn, principalOf, type MemberRow, type Principal } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, sessionById } from '../courses/store';
import { AppError, parse } from '../errors';
import type { MediaRelay } from '../media/relay';
import type { RoomMedia } from '../media/roomMedia';
import { recordsItself } from '../recordings/plan';
import { isFor, membersOf, targetOf } from '../roster/store';
import type { Room } from './room';
import type { Rooms } from './rooms';

/** A page that lost its connection has this long to come back before its person has left. */
const GRACE_MS = 4000;

interface Visit {
  room: Room;
  member: MemberRow;
}

type Ack = (reply: unknown) => void;
type Failure = { ok: false; refusal: { code: string; message: string } };

const staffOf = (session: string) => `${session}/staff`;
const ownOf = (session: string, member: string) => `${session}/${member}`;

/** The live channel: who enters, what they command, and what each may hear. */
export class RoomSocket {
  readonly io: Server;
  readonly #visits = new Map<string, Visit>();

  constructor(
    readonly ctx: Context,
    http: HttpServer,
    readonly rooms: Rooms,
    readonly media: RoomMedia,
    readonly relay: MediaRelay,
  ) {
    this.io = new Server(http, {
      path: '/live',
      serveClient: false,
      maxHttpBufferSize: 200_000,
      pingInterval: 5000,
      pingTimeout: 5000,
    });
    this.io.use((socket, next) => {
      const { link } = socket.handshake.auth as { link?: string };
      const headers = { ...socket.handshake.headers };
      if (link) headers.authorization = `Link ${link}`;
      principalOf(ctx, headers).then(
        (principal) => {
          (socket.data as { principal: Principal }).principal = principal;
          next();
        },
        (error: Error) => next(error),
      );
    });
    this.io.on('connection', (socket) => this.#serve(socket));
    relay.onChange((available) => this.io.emit('relay', { available }));
  }

  /** Sends stored events to those who may have them, each broadcast once. */
  tell(room: Room, events: readonly StoredEvent[]) {
    const all = events.every((e) => audienceOf(e).everyone);
    if (all) this.io.to(room.session).emit('events', events);
    else
      for (const event of events) {
        const to = audienceOf(event);
        const target = to.everyone
          ? [room.session]
          : [staffOf(room.session), ...to.members.map((m) => ownOf(room.session, m))];
        this.io.to(target).emit('events', [event]);
      }
    if (events.some((e) => e.type === 'dismissed')) this.#emptyOut(room);
  }

  #serve(socket: Socket) {
    this.#on(socket, 'enter', (body) => this.#enter(socket, body));
    this.#on(socket, 'command', (body) => this.#command(socket, body));
    this.#on(socket, 'leave', async () => (await this.#depart(socket, 0), {}));
    this.#on(socket, 'publish', async (body) => {
      const { room, member } = this.#visit(socket);
      if (member.role === 'observer') throw new AppError('forbidden', 'Observers watch and listen.');
      this.#needRelay();
      return { sdp: await this.media.publish(room, member.id, parse(SdpMessage, body).sdp) };
    });
    this.#on(socket, 'unpublish', async () => {
      const { room, member } = this.#visit(socket);
      await this.media.unpublish(room, member.id);
      return {};
    });
    this.#on(socket, 'watch', async () => {
      const { room, member } = this.#visit(socket);
      this.#needRelay();
      await this.media.watch(room, socket.id, member.id, (offer) => socket.emit('offer', offer));
      return {};
    });
    this.#on(socket, 'answer', async (body) => {
      this.#visit(socket);
      await this.media.answer(socket.id, parse(SdpMessage, body).sdp);
      return {};
    });
    socket.on('disconnect', () => void this.#depart(socket, GRACE_MS));
  }

  /** Every message is answered: with its result, or with a refusal in words. */
  #on(socket: Socket, name: string, handler: (body: unknown) => Promise<object>) {
    socket.on(name, (body: unknown, ack: unknown) => {
      const reply: Ack =
        typeof ack === 'function' ? (ack as Ack) : typeof body === 'function' ? (body as Ack) : () => {};
      handler(body).then(
        (result) => reply({ ok: true, ...result }),
        (error: unknown) => reply(this.#failure(error)),
      );
    });
  }

  #failure(error: unknown): Failure {
    if (error instanceof AppError)
      return { ok: false, refusal: { code: error.code, message: error.message } };
    this.ctx.log.error(error);
    return { ok: false, refusal: { code: 'internal', message: 'Something went wrong here. Try again.' } };
  }

  #visit(socket: Socket): Visit {
    const visit = this.#visits.get(socket.id);
    if (!visit) throw new AppError('forbidden', 'You are not in the room.');
    return visit;
  }

  #needRelay() {
    if (!this.relay.available) throw new AppError('not-ready', 'Sound and picture are away for the moment.');
  }

  async #enter(socket: Socket, body: unknown): Promise<object> {
    const { session: id, after } = parse(EnterMessage, body);
    const { principal } = socket.data as { principal: Principal };
    const session = await sessionById(this.ctx.db, id);
    if (!session) throw new AppError('not-found');
    const member = await memberIn(this.ctx, principal, session.courseId);
    if (!isFor(targetOf(session), member)) throw new AppError('forbidden');
    const course = (await courseById(this.ctx.db, session.courseId))!;
    const door = doorFor(session, course.door, member.role, this.ctx.now());
    if (!door.open) throw new AppError('forbidden', doorWords(door, member.zone));

    if (this.#visits.get(socket.id)?.room.session !== id) await this.#depart(socket, 0);
    const room = await this.rooms.room(id);
    if (room.state.phase === 'dismissed')
      throw new AppError('forbidden', doorWords({ open: false, because: 'over' }, member.zone));
    if (!this.#visits.has(socket.id)) {
      this.#visits.set(socket.id, { room, member });
      room.connections.set(member.id, (room.connections.get(member.id) ?? 0) + 1);
    }
    await room.happen((state) =>
      state.occupants[member.id]?.present
        ? []
        : [
            {
              type: 'entered',
              member: member.id,
              name: member.name,
              role: member.role,
              ...(member.role === 'guest' && member.capabilities.length
                ? { grants: member.capabilities }
                : {}),
            },
          ],
    );
    const members = await membersOf(this.ctx.db, course.id);
    // From here on without a pause: nothing is told between what is read and joining those who are told.
    void socket.join([id, ownOf(id, member.id), ...(teaches(member.role) ? [staffOf(id)] : [])]);
    const viewer = { member: member.id, role: member.role };
    const { courseId, take, ...info } = session;
    const room_: RoomInfo = {
      session: info,
      course: { id: course.id, code: course.code, title: course.title },
      zone: course.term.zone,
      me: viewer,
      people: members
        .filter((m) => isFor(targetOf(session), m))
        .map((m) => ({ member: m.id, name: m.name, role: m.role, group: m.group })),
      base: room.state.base.map(({ name, values, by, at }) => ({ name, values, by, at })),
      relay: this.relay.available,
      records: recordsItself(session, course.recordingPlan),
    };
    const events = room.events.slice(after).filter((e) => audience(e, viewer) !== null);
    return { info: room_, events, seq: room.state.seq, now: this.ctx.now() };
  }

  async #command(socket: Socket, body: unknown): Promise<CommandReply> {
    const { room, member } = this.#visit(socket);
    const { id, command } = parse(CommandMessage, body);
    return room.command({ member: member.id, role: member.role }, command, id);
  }

  async #depart(socket: Socket, grace: number) {
    const visit = this.#visits.get(socket.id);
    if (!visit) return;
    const { room, member } = visit;
    this.#visits.delete(socket.id);
    for (const name of socket.rooms) if (name !== socket.id) void socket.leave(name);
    await this.media.unwatch(socket.id);
    const left = (room.connections.get(member.id) ?? 1) - 1;
    if (left > 0) return void room.connections.set(member.id, left);
    room.connections.delete(member.id);
    const leave = () =>
      room.happen((state) =>
        state.occupants[member.id]?.present && !room.connections.has(member.id)
          ? [{ type: 'left', member: member.id }]
          : [],
      );
    if (grace === 0) await leave();
    else setTimeout(() => void leave().catch((e: unknown) => this.ctx.log.error(e)), grace);
  }

  /** Takes members out of every room they are in, this moment: they are off the list, or their link is dead. */
  async putOut(members: readonly string[]) {
    for (const [id, visit] of this.#visits) {
      if (!members.includes(visit.member.id)) continue;
      const socket = this.io.sockets.sockets.get(id);
      if (!socket) continue;
      socket.emit('put-out', { message: 'Your link is no longer good for this class.' });
      await this.#depart(socket, 0);
      await this.media.unpublish(visit.room, visit.member.id);
      socket.disconnect(true);
    }
  }

  #emptyOut(room: Room) {
    for (const [id, visit] of this.#visits)
      if (visit.room === room) {
        this.#visits.delete(id);
        this.io
          .in(id)
          .socketsLeave([room.session, staffOf(room.session), ownOf(room.session, visit.member.id)]);
      }
    room.connections.clear();
    this.rooms.forget(room.session);
  }
}

function doorWords(door: Exclude<DoorState, { open: true }>, zone: string): string {
  if (door.because === 'cancelled') return 'This session is cancelled.';
  if (door.because === 'over') return 'This class is over. The link opens again for the next one.';
  if (door.because === 'teacher') return 'The door opens when your teacher rings in.';
  return `The door opens ${instantWords(door.opensAt, zone)}, ${zoneWords(zone)} time.`;
}

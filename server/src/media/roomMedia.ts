import type { StoredEvent } from '@nimble-bell/core/api';
import { sends } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { AppError } from '../errors';
import type { Room } from '../room/room';
import { TRACK_KINDS, type MediaRelay, type TrackKind, type ViewerOffer } from './relay';

interface Publisher {
  number: number;
  /** Its connection stands: before, the relay knows nothing of it that could be watched. */
  up: boolean;
  open: Partial<Record<TrackKind, boolean>>;
}

interface ViewerConnection {
  room: Room;
  member: string;
  offer: (offer: ViewerOffer) => void;
  /** An offer is out and not answered: the next waits. */
  busy: boolean;
  stale: boolean;
}

const SWITCH: Record<TrackKind, 'microphone' | 'camera' | 'screen'> = {
  sound: 'microphone',
  camera: 'camera',
  screen: 'screen',
};

const RETRY_MS = 500;

/**
 * Joins rooms and relay: carries offers and answers, tells each page whom to watch, and opens or closes every track
 * at the relay whenever the room's state changes. The verdict is the core's `sends`.
 */
export class RoomMedia {
  /** By session and member: which publication it is, and which of its tracks the relay passes on. */
  readonly #publishers = new Map<string, Map<string, Publisher>>();
  #publications = 0;
  readonly #viewers = new Map<string, ViewerConnection>();
  #published: ((room: Room, member: string) => Promise<void>)[] = [];
  #work: Promise<unknown> = Promise.resolve();

  constructor(
    readonly ctx: Context,
    readonly relay: MediaRelay,
  ) {
    relay.onChange((up) => {
      if (!up) this.#publishers.clear();
      for (const viewer of this.#viewers.values()) viewer.busy = false;
    });
  }

  /** Called when a member's tracks are there to be recorded. */
  onPublished(listener: (room: Room, member: string) => Promise<void>) {
    this.#published.push(listener);
  }

  publishersOf(session: string): string[] {
    return [...(this.#publishers.get(session)?.keys() ?? [])];
  }

  async publish(room: Room, member: string, sdp: string): Promise<string> {
    checkOffer(sdp);
    await this.relay.openRoom(room.session);
    // The connection before it ends with it; its viewers take the new publication when it is there.
    this.#publishers.get(room.session)?.delete(member);
    const { answer, up } = await this.relay.publish(room.session, member, sdp);
    const own = this.#publishers.get(room.session) ?? new Map<string, Publisher>();
    own.set(member, { number: ++this.#publications, up: false, open: {} });
    this.#publishers.set(room.session, own);
    await this.#enforce(room);
    for (const listener of this.#published) await listener(room, member);
    void up.then(() => this.#becomeVisible(room, member));
    // Who left while the relay was asked is let go all the same.
    if (!room.state.occupants[member]?.present) await this.unpublish(room, member);
    return answer;
  }

  async unpublish(room: Room, member: string) {
    if (!this.#publishers.get(room.session)?.delete(member)) return;
    await this.relay.unpublish(room.session, member);
  }

  /** A page begins to watch; offers come to it until `unwatch`. */
  async watch(room: Room, viewer: string, member: string, offer: ViewerConnection['offer']) {
    await this.unwatch(viewer);
    this.#viewers.set(viewer, { room, member, offer, busy: false, stale: false });
    await this.#offerTo(viewer);
  }

  async answer(viewer: string, sdp: string) {
    const connection = this.#viewers.get(viewer);
    if (!connection) return;
    try {
      await this.relay.answer(viewer, sdp);
    } finally {
      connection.busy = false;
      if (connection.stale) await this.#offerTo(viewer);
    }
  }

  async unwatch(viewer: string) {
    if (!this.#viewers.delete(viewer)) return;
    await this.relay.unwatch(viewer).catch(() => {});
  }

  /** After events: tracks open and close, those who left are let go, a dismissed room ends. */
  heed(room: Room, events: readonly StoredEvent[]): Promise<void> {
    return this.#inTurn(async () => {
      for (const event of events) if (event.type === 'left') await this.unpublish(room, event.member);
      await this.#enforce(room);
    });
  }

  async close(room: Room) {
    this.#publishers.delete(room.session);
    for (const [id, viewer] of this.#viewers) if (viewer.room === room) this.#viewers.delete(id);
    if (this.relay.available) await this.relay.closeRoom(room.session);
  }

  /** Asks the relay for what changed only. Closing is asked first. */
  async #enforce(room: Room) {
    if (!this.relay.available) return;
    const changes: [string, TrackKind, boolean][] = [];
    for (const [member, { open: tracks }] of this.#publishers.get(room.session) ?? [])
      for (const kind of TRACK_KINDS) {
        const open = sends(room.state, member, SWITCH[kind]);
        if ((tracks[kind] ?? false) !== open) changes.push([member, kind, open]);
        tracks[kind] = open;
      }
    changes.sort((a, b) => Number(a[2]) - Number(b[2]));
    await Promise.all(
      changes.map(([member, kind, open]) =>
        this.relay
          .moderate(room.session, member, kind, open)
          .catch((error: unknown) => this.ctx.log.warn({ member, kind, open }, String(error))),
      ),
    );
  }

  #becomeVisible(room: Room, member: string) {
    const publisher = this.#publishers.get(room.session)?.get(member);
    if (!publisher) return;
    publisher.up = true;
    this.#refresh(room);
  }

  #refresh(room: Room) {
    for (const [id, viewer] of this.#viewers) if (viewer.room === room) void this.#offerTo(id);
  }

  async #offerTo(id: string) {
    const viewer = this.#viewers.get(id);
    if (!viewer || !this.relay.available) return;
    if (viewer.busy) return void (viewer.stale = true);
    viewer.busy = true;
    viewer.stale = false;
    try {
      const { session } = viewer.room;
      const publications = [...(this.#publishers.get(session) ?? [])]
        .filter(([member, { up }]) => up && member !== viewer.member)
        .map(([member, { number }]) => ({ member, number }));
      if (publications.length) await this.relay.openRoom(session);
      const offer = await this.relay.watch(session, id, publications);
      if (offer) return viewer.offer(offer);
    } catch (error) {
      // A publisher that went while it was asked for: what is there now is asked for in a moment.
      this.ctx.log.warn({ viewer: id }, String(error));
      setTimeout(() => void this.#offerTo(id), RETRY_MS).unref();
    }
    viewer.busy = false;
    if (viewer.stale) await this.#offerTo(id);
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.#work.then(work, work);
    this.#work = turn.catch(() => {});
    return turn;
  }
}

/** An offer holds a sound, a camera and a screen section, in this order, and nothing else. */
export function checkOffer(sdp: string) {
  const sections = [...sdp.matchAll(/^m=(\w+) /gm)].map((m) => m[1]);
  if (sections.join() !== 'audio,video,video')
    throw new AppError('invalid', 'An offer has a sound, a camera and a screen section.');
}

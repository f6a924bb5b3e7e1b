import type { Way } from '@nimble-bell/core/door';
import type { StoredEvent } from '@nimble-bell/core/room';
import { hiddenCameras, isHere, placeOf } from '@nimble-bell/core/room';
import type { Look, RelayOffer } from '@nimble-bell/core/api';
import type { Context } from '../../context';
import { newId } from '../../context';
import { AppError } from '../../errors';
import { TRACK_KINDS, type MediaRelay, type TrackKind, type Watched } from '../../media/relay';
import { addTrack, openPartsOf } from '../../recordings/store';
import {
  memberOf,
  publisherOf,
  Publishers,
  type Publisher,
  type Reels,
  type RoomAtRelay,
} from './publishers';
import { Turns } from '../../turns';

/** What a page that watches is told. */
export interface ViewerTold {
  offer: (offer: RelayOffer) => void;
  /** Whose cameras it shows; without it everybody's. */
  looks?: Look | null;
  /** It watches nothing any more, and may begin anew. */
  dropped?: () => void;
}

interface Viewer {
  member: string;
  tell: ViewerTold;
  /** Whose cameras it shows, and whether small; null for everybody's. */
  wanted: ReadonlyMap<string, { small: boolean }> | null;
  /** Whose cameras it does not receive, by what was asked of the relay last. */
  hidden: string;
  /** What it receives, by the same. */
  given: string;
  /** An offer is out and not answered: the next waits. */
  busy: boolean;
  stale: boolean;
}

const RETRY_MS = 500;
/** An offer is answered within this, where something is to be hidden. */
const PATIENT_MS = 4000;

/** The sound and picture of one room: who publishes, who watches, each held to what the room's state says. */
class RoomMedia {
  readonly publishers: Publishers;
  readonly viewers = new Map<string, Viewer>();
  /** Callers' lines, and whose they are. */
  readonly #lines = new Map<string, string>();
  #tuning: NodeJS.Timeout | null = null;
  readonly #turns = new Turns();
  #publications = 0;
  #opened: Promise<void> | null = null;

  constructor(
    readonly ctx: Context,
    readonly relay: MediaRelay,
    readonly room: RoomAtRelay,
    reels: Reels,
  ) {
    this.publishers = new Publishers(room, relay, reels, ctx.log, () => this.#tune());
  }

  /** One after another for each publisher: of several at once the last one stands, and nothing is left of the others. */
  publish(member: string, way: Way, sdp: string, passed: Publisher['passed']): Promise<string> {
    const kinds = KINDS_BY[way];
    checkOffer(sdp, kinds);
    const id = publisherOf(member, way);
    return this.#turns.take(id, async () => {
      await this.#open();
      this.publishers.all.delete(id);
      const { answer, up } = await this.relay.publish(this.room.session, id, kinds, sdp);
      const number = ++this.#publications;
      this.publishers.all.set(id, {
        ...{ id, member, way, kinds },
        number,
        up: false,
        confirmed: { sound: false, camera: false, screen: false },
        reel: null,
        failures: 0,
        passed,
      });
      void up.then(() => this.#becomeVisible(id, number)).catch(() => {});
      // Who left while the relay was asked is let go all the same.
      if (isHere(this.room.state, member)) await this.publishers.settle();
      else await this.publishers.remove(id);
      return answer;
    });
  }

  unpublish(member: string, way: Way): Promise<void> {
    const id = publisherOf(member, way);
    return this.#turns.take(id, () => this.publishers.remove(id));
  }

  /** A caller hears the room by their line from now on, until `unlisten`. */
  listen(line: string, member: string) {
    this.#lines.set(line, member);
    this.#tune();
  }
  /** Whoever is out hears nothing more, also while their line still says goodbye. */
  unlisten(line: string) {
    if (this.#lines.delete(line)) this.#log(this.relay.mix(line, this.room.session, []));
  }

  /** In a moment, once, however many lines were not mixed. */
  #tuneAgain() {
    this.#tuning ??= setTimeout(() => {
      this.#tuning = null;
      this.#tune();
    }, RETRY_MS).unref();
  }

  /** What is passed on in the room is what is mixed into each caller's line, without their own. */
  #tune() {
    for (const [line, member] of this.#lines) {
      const place = placeOf(this.room.state, member);
      const heard = [...this.publishers.all.values()].filter(
        (p) =>
          p.up && p.confirmed.sound && p.member !== member && placeOf(this.room.state, p.member) === place,
      );
      const publications = heard.map(({ id, number }) => ({ publisher: id, number }));
      this.relay.mix(line, this.room.session, publications).catch((error: unknown) => {
        this.ctx.log.warn({ line }, String(error));
        this.#tuneAgain();
      });
    }
  }

  async watch(viewer: string, member: string, tell: ViewerTold) {
    await this.unwatch(viewer);
    const wanted = tell.looks ? wantedOf(tell.looks) : null;
    this.viewers.set(viewer, { member, tell, wanted, hidden: '', given: '', busy: false, stale: false });
    await this.#offerTo(viewer);
  }

  /** Others are shown on a page now: it is given their pictures, and the former ones' no more. */
  async look(id: string, looks: Look) {
    const viewer = this.viewers.get(id);
    if (!viewer) return;
    viewer.wanted = wantedOf(looks);
    if (this.#isOther(viewer)) await this.#offerTo(id);
  }

  async answer(id: string, sdp: string) {
    const viewer = this.viewers.get(id);
    if (!viewer) return;
    try {
      await this.relay.answer(id, sdp);
    } finally {
      viewer.busy = false;
      if (viewer.stale) await this.#offerTo(id);
    }
  }

  async unwatch(viewer: string) {
    if (this.viewers.delete(viewer)) await this.relay.unwatch(viewer).catch(() => {});
  }

  heed(events: readonly StoredEvent[]): Promise<void> {
    const gone = events.flatMap((e) => (e.type === 'left' ? [e.member] : []));
    for (const { member, way } of this.publishers.all.values())
      if (gone.includes(member)) this.#log(this.unpublish(member, way));
    const moved = events.some((e) => e.type === 'wentTo');
    for (const [id, viewer] of this.viewers)
      if (moved ? this.#isOther(viewer) : viewer.hidden !== this.#hiddenFrom(viewer.member).words)
        this.#log(this.#hide(id));
    return this.publishers.settle();
  }

  #isOther = (viewer: Viewer) => viewer.given !== givenWords(this.#publicationsFor(viewer));

  /** Another is hidden from now on, or no more. Who does not answer what was offered before watches nothing more. */
  async #hide(id: string) {
    await this.#offerTo(id);
    const waits = this.viewers.get(id);
    if (!waits || !this.#isOther(waits)) return;
    setTimeout(() => {
      if (this.viewers.get(id) !== waits || !this.#isOther(waits)) return;
      this.#log(this.unwatch(id).then(() => waits.tell.dropped?.()));
    }, PATIENT_MS).unref();
  }

  /** Whose cameras somebody does not receive: who has no place in the room receives nobody's. */
  #hiddenFrom(member: string): { who: Set<string>; words: string } {
    const viewer = this.room.state.presence.people[member];
    const who = viewer ? hiddenCameras(this.room.state, viewer) : new Set<string>();
    return { who, words: [...who].join() };
  }

  /** What somebody receives: of whoever is where they are, what is not hidden from them and, of cameras, what they show. */
  #publicationsFor({ member, wanted }: Viewer, hidden = this.#hiddenFrom(member).who): Watched[] {
    const { state } = this.room;
    const place = placeOf(state, member);
    return [...this.publishers.all.values()]
      .filter((p) => p.up && p.member !== member && placeOf(state, p.member) === place)
      .map(({ id: publisher, number, member: of, kinds }) => {
        const shown = !hidden.has(of) && (!wanted || wanted.has(of));
        return {
          ...{ publisher, number, kinds: shown ? kinds : kinds.filter((k) => k !== 'camera') },
          small: shown && (wanted?.get(of)?.small ?? false),
        };
      });
  }

  /** The relay came or went: what it had is gone. */
  relayChanged(up: boolean) {
    this.#opened = null;
    if (!up) this.publishers.forget();
    for (const viewer of this.viewers.values()) viewer.busy = false;
  }

  async close() {
    this.publishers.stop();
    this.viewers.clear();
    this.#lines.clear();
    if (this.relay.available) await this.relay.closeRoom(this.room.session);
  }

  /** What an earlier server left of this room at the relay goes first. */
  #open(): Promise<void> {
    const { session } = this.room;
    this.#opened ??= this.relay
      .closeRoom(session)
      .then(() => this.relay.openRoom(session))
      .catch((error: unknown) => {
        this.#opened = null;
        throw error;
      });
    return this.#opened;
  }

  #becomeVisible(id: string, number: number) {
    const publisher = this.publishers.all.get(id);
    if (publisher?.number !== number) return;
    publisher.up = true;
    this.#tune();
    for (const id of this.viewers.keys()) this.#log(this.#offerTo(id));
  }

  async #offerTo(id: string) {
    const viewer = this.viewers.get(id);
    if (!viewer || !this.relay.available) return;
    if (viewer.busy) return void (viewer.stale = true);
    viewer.busy = true;
    viewer.stale = false;
    try {
      const { who, words } = this.#hiddenFrom(viewer.member);
      const publications = this.#publicationsFor(viewer, who);
      Object.assign(viewer, { hidden: words, given: givenWords(publications) });
      if (publications.length) await this.#open();
      const offer = await this.relay.watch(this.room.session, id, publications);
      if (offer)
        return viewer.tell.offer({
          sdp: offer.sdp,
          streams: offer.streams.map((s) => ({ ...s, member: memberOf(s.member) })),
        });
    } catch (error) {
      // A publisher that went while it was asked for: what is there now is asked for in a moment.
      this.ctx.log.warn({ viewer: id }, String(error));
      setTimeout(() => this.#log(this.#offerTo(id)), RETRY_MS).unref();
    }
    viewer.busy = false;
    if (viewer.stale) await this.#offerTo(id);
  }

  #log(work: Promise<unknown>) {
    work.catch((error: unknown) => this.ctx.log.warn(String(error)));
  }
}

/** The media of every room this server holds. Each room has its own reconciler: a slow relay in one holds up no other. */
export class Media {
  readonly #rooms = new Map<string, RoomMedia>();
  readonly #viewers = new Map<string, RoomMedia>();

  constructor(
    readonly ctx: Context,
    readonly relay: MediaRelay,
    readonly reels: Reels = reelsIn(ctx),
  ) {
    relay.onChange((up) => {
      for (const room of this.#rooms.values()) room.relayChanged(up);
    });
  }

  publish = (
    room: RoomAtRelay,
    member: string,
    sdp: string,
    way: Way = 'page',
    passed: Publisher['passed'] = () => {},
  ) => this.#of(room).publish(member, way, sdp, passed);
  unpublish = (room: RoomAtRelay, member: string, way: Way = 'page') => this.#of(room).unpublish(member, way);
  listen = (room: RoomAtRelay, line: string, member: string) => this.#of(room).listen(line, member);
  unlisten = (room: RoomAtRelay, line: string) => this.#of(room).unlisten(line);

  /** A page begins to watch; offers come to it until `unwatch`. */
  async watch(room: RoomAtRelay, viewer: string, member: string, tell: ViewerTold) {
    await this.unwatch(viewer);
    const media = this.#of(room);
    this.#viewers.set(viewer, media);
    await media.watch(viewer, member, tell);
  }
  look = async (viewer: string, looks: Look) => this.#viewers.get(viewer)?.look(viewer, looks);
  answer = async (viewer: string, sdp: string) => this.#viewers.get(viewer)?.answer(viewer, sdp);
  async unwatch(viewer: string) {
    const media = this.#viewers.get(viewer);
    this.#viewers.delete(viewer);
    await media?.unwatch(viewer);
  }

  /** After events: tracks open and close, recording begins and ends, those who left are let go, a dismissed room ends. */
  async heed(room: RoomAtRelay, events: readonly StoredEvent[]): Promise<void> {
    if (room.state.bell.phase === 'dismissed') return this.close(room);
    await this.#of(room).heed(events);
  }

  async close(room: RoomAtRelay) {
    const media = this.#rooms.get(room.session);
    this.#rooms.delete(room.session);
    if (media) await media.close();
  }

  /** Who publishes in a room. */
  publishersOf = (session: string): string[] => [...(this.#rooms.get(session)?.publishers.all.keys() ?? [])];

  #of(room: RoomAtRelay): RoomMedia {
    let media = this.#rooms.get(room.session);
    if (media?.room !== room) {
      media = new RoomMedia(this.ctx, this.relay, room, this.reels);
      this.#rooms.set(room.session, media);
    }
    return media;
  }
}

const givenWords = (publications: readonly Watched[]) =>
  publications
    .map(({ publisher, number, kinds, small }) => `${publisher} ${number} ${kinds.join('')} ${small}`)
    .join();

const wantedOf = ({ cameras, small }: Look) => {
  const few = new Set(small);
  return new Map(cameras.map((member) => [member, { small: few.has(member) }]));
};

/** What is sent by each way. */
const KINDS_BY: Record<Way, readonly TrackKind[]> = { page: TRACK_KINDS, telephone: ['sound'] };

/** An offer holds a section for each kind, in their order, and nothing else. */
export function checkOffer(sdp: string, kinds: readonly TrackKind[] = TRACK_KINDS) {
  const sections = [...sdp.matchAll(/^m=(\w+) /gm)].map((m) => m[1]);
  if (sections.join() !== kinds.map((k) => (k === 'sound' ? 'audio' : 'video')).join())
    throw new AppError('invalid', `An offer has these sections: ${kinds.join(', ')}.`);
}

/** Recordings as they stand in the database. */
const reelsIn = (ctx: Context): Reels => ({
  partsOf: (session) => openPartsOf(ctx.db, session),
  begin: async (part, member) => {
    const base = `${part}-${newId()}`;
    await addTrack(ctx.db, part, { member, base, ahead: ctx.now() - Date.now() });
    return base;
  },
});

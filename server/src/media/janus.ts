import { symlink } from 'node:fs/promises';
import path from 'node:path';
import type { Logger } from 'pino';
import { JanusClient, RelayError, type Reply } from './janusClient';
import { JanusLines } from './janusLines';
import {
  TRACK_KINDS,
  type MediaRelay,
  type Publication,
  type Reel,
  type StreamPlace,
  type TrackKind,
  type ViewerOffer,
  type Watched,
} from './relay';

/** The relay's own words for a room, or a publisher, that is not there. */
const NO_SUCH_ROOM = 426;
const ABSENT: ReadonlySet<number> = new Set([NO_SUCH_ROOM, 428]);

interface Publisher {
  handle: number;
}

type VoiceListener = (room: string, publisher: string, heard: boolean) => void;
/** Somebody is heard who is louder than this, dBov below the loudest, over so many packets of 20 ms. */
const HEARD = { audio_active_packets: 30, audio_level_average: 50 };

interface Viewer {
  handle: number;
  room: string;
  joined: boolean;
  /** The publication that is received of each member, and what of it. */
  publications: Map<string, Omit<Watched, 'publisher'>>;
  /** In which of its sections each feed is. */
  sections: Map<string, string>;
}

interface RelayStream {
  mid: string;
  active: boolean;
  feed_id: string;
  feed_mid: string;
}

/** The `janus` relay's VideoRoom plugin behind the room's interface. Only the server talks to it. */
export class JanusRelay implements MediaRelay {
  readonly #client: JanusClient;
  /** A handle for the requests that belong to no peer connection. */
  #control: Promise<number> | null = null;
  #publishers = new Map<string, Publisher>();
  #viewers = new Map<string, Viewer>();
  #voices: VoiceListener[] = [];
  readonly #lines: JanusLines;

  constructor(
    url: string,
    readonly recordingDir: string,
    log: Logger,
  ) {
    this.#client = new JanusClient(url, log);
    this.#client.onChange((up) => {
      if (up) return;
      this.#control = null;
      for (const key of this.#publishers.keys()) this.#unheard(key);
      this.#publishers.clear();
      this.#viewers.clear();
      this.#lines.forget();
    });
    this.#lines = new JanusLines(this.#client, (body) => this.#ask(body));
  }

  get available() {
    return this.#client.up;
  }

  onChange(listener: (available: boolean) => void) {
    this.#client.onChange(listener);
  }

  async openRoom(room: string) {
    const { data } = await this.#ask({ request: 'exists', room });
    if (data.exists) return;
    await this.#ask({
      request: 'create',
      room,
      publishers: 400,
      bitrate: 900_000,
      // A picture that needs none before it, so often (s): a recording is cut and entered there.
      fir_freq: 10,
      audiocodec: 'opus',
      videocodec: 'vp8',
      rec_dir: this.recordingDir,
      audiolevel_ext: true,
      audiolevel_event: true,
      ...HEARD,
      notify_joining: false,
    });
  }

  async closeRoom(room: string) {
    for (const [key, publisher] of this.#publishers)
      if (key.startsWith(`${room}/`)) {
        this.#publishers.delete(key);
        this.#unheard(key);
        await this.#client.detach(publisher.handle);
      }
    for (const [viewer, { room: own }] of this.#viewers) if (own === room) await this.unwatch(viewer);
    await this.#ask({ request: 'destroy', room }).catch((error: unknown) => {
      if (!(error instanceof RelayError) || error.code !== NO_SUCH_ROOM) throw error;
    });
  }

  async publish(
    room: string,
    publisher: string,
    kinds: readonly TrackKind[],
    sdp: string,
  ): Promise<{ answer: string; up: Promise<void> }> {
    await this.unpublish(room, publisher);
    const handle = await this.#client.attach('videoroom');
    // Each is told of all: of itself is enough.
    this.#client.onEvent(handle, ({ videoroom, id }) => {
      if (id !== publisher || (videoroom !== 'talking' && videoroom !== 'stopped-talking')) return;
      for (const listener of this.#voices) listener(room, publisher, videoroom === 'talking');
    });
    try {
      // Joined and closed before the answer leaves: no packet can come earlier than its verdict.
      await this.#client.request(handle, { request: 'join', ptype: 'publisher', room, id: publisher });
      const up = this.#client.whenUp(handle);
      const reply = await this.#client.request(
        handle,
        { request: 'publish', audiocodec: 'opus', videocodec: 'vp8' },
        { type: 'offer', sdp },
      );
      for (const kind of kinds) await this.#let(room, publisher, kind, false);
      this.#publishers.set(`${room}/${publisher}`, { handle });
      return { answer: sdpOf(reply), up };
    } catch (error) {
      await this.#client.detach(handle);
      throw error;
    }
  }

  async unpublish(room: string, publisher: string) {
    // By id, whichever connection it is that holds it; then the connection that is known.
    await this.#ask({ request: 'kick', room, id: publisher }).catch((error: unknown) => {
      if (!(error instanceof RelayError) || !ABSENT.has(error.code)) throw error;
    });
    const known = this.#publishers.get(`${room}/${publisher}`);
    if (!known) return;
    this.#publishers.delete(`${room}/${publisher}`);
    this.#unheard(`${room}/${publisher}`);
    await this.#client.detach(known.handle);
  }

  onVoice(listener: VoiceListener) {
    this.#voices.push(listener);
  }

  /** Whoever sends nothing any more is not heard. */
  #unheard(key: string) {
    const [room, publisher] = key.split('/') as [string, string];
    for (const listener of this.#voices) listener(room, publisher, false);
  }

  async moderate(room: string, publisher: string, kind: TrackKind, open: boolean) {
    await this.#let(room, publisher, kind, open).catch((error: unknown) => {
      // What is not there any more is closed.
      if (open || !(error instanceof RelayError) || !ABSENT.has(error.code)) throw error;
    });
  }

  async #let(room: string, publisher: string, kind: TrackKind, open: boolean) {
    await this.#ask({
      request: 'moderate',
      room,
      id: publisher,
      mid: String(TRACK_KINDS.indexOf(kind)),
      mute: !open,
    });
  }

  async watch(room: string, viewer: string, publications: readonly Watched[]): Promise<ViewerOffer | null> {
    const known = this.#viewers.get(viewer) ?? {
      handle: await this.#client.attach('videoroom'),
      room,
      joined: false,
      publications: new Map(),
      sections: new Map(),
    };
    this.#viewers.set(viewer, known);
    const publishes = (publisher: string) => this.#publishers.has(`${room}/${publisher}`);
    const { streams, ended, resized } = changes(known.publications, publications, publishes);
    if (resized.length) await this.#resize(known, resized);
    const offer = streams.length || ended.length ? await this.#renew(known, streams, ended) : null;
    known.publications = new Map(publications.map(({ publisher, ...of }) => [publisher, of]));
    return offer;
  }

  async #renew(known: Viewer, streams: Feed[], ended: Feed[]): Promise<ViewerOffer | null> {
    const reply = await this.#client.request(
      known.handle,
      known.joined
        ? {
            request: 'update',
            ...(streams.length ? { subscribe: streams } : {}),
            ...(ended.length ? { unsubscribe: ended } : {}),
          }
        : { request: 'join', ptype: 'subscriber', room: known.room, streams, autoupdate: false },
    );
    known.joined = true;
    const received = ((reply.data.streams ?? []) as RelayStream[]).filter((s) => s.active && s.feed_id);
    known.sections = new Map(received.map((s) => [sectionKey({ feed: s.feed_id, mid: s.feed_mid }), s.mid]));
    if (!reply.jsep) return null;
    return { sdp: reply.jsep.sdp, streams: placesOf(received) };
  }

  /** Of what is received already, the small picture or the large one: nothing is negotiated for that. */
  async #resize(known: Viewer, feeds: readonly Feed[]) {
    const streams = feeds.flatMap(({ substream, ...feed }) => {
      const mid = known.sections.get(sectionKey(feed));
      return mid === undefined ? [] : [{ mid, substream }];
    });
    await this.#client.request(known.handle, { request: 'configure', streams });
  }

  async answer(viewer: string, sdp: string) {
    const known = this.#viewers.get(viewer);
    if (known) await this.#client.request(known.handle, { request: 'start' }, { type: 'answer', sdp });
  }

  async unwatch(viewer: string) {
    const known = this.#viewers.get(viewer);
    this.#viewers.delete(viewer);
    if (known) await this.#client.detach(known.handle);
  }

  async record(room: string, publisher: string, reel: Reel | null) {
    const known = this.#publishers.get(`${room}/${publisher}`);
    if (!known) return;
    const configure = (body: object) => this.#client.request(known.handle, { request: 'configure', ...body });
    // The relay takes a name only where it begins to write.
    await configure({ record: false });
    if (!reel) return;
    if (!reel.pictures) await this.#letPicturesGo(reel.base);
    await configure({ record: true, filename: reel.base });
  }

  /** The relay writes all or nothing of a publisher: the names it will give to pictures lead nowhere. */
  async #letPicturesGo(base: string) {
    const pictures = TRACK_KINDS.flatMap((kind, i) => (kind === 'sound' ? [] : [`${base}-video-${i}.mjr`]));
    for (const name of pictures) await symlink('/dev/null', path.join(this.recordingDir, name));
  }

  openLine = (line: string, sdp: string) => this.#lines.open(line, sdp);
  pass = (room: string, publisher: string, port: number) => this.#lines.pass(room, publisher, port);
  mix = (line: string, room: string, publications: readonly Publication[]) =>
    this.#lines.mix(line, room, publications);
  play = (line: string, file: string) => this.#lines.play(line, file);
  closeLine = (line: string) => this.#lines.close(line);

  async stop() {
    this.#client.stop();
  }

  async #ask(body: Record<string, unknown>): Promise<Reply> {
    this.#control ??= this.#client.attach('videoroom').catch((error: unknown) => {
      this.#control = null;
      throw error;
    });
    return this.#client.request(await this.#control, body);
  }
}

interface Feed {
  feed: string;
  mid: string;
  /** Which of the pictures that a camera sends; where there is only one, that. */
  substream?: number;
}
/** Of the two pictures of a camera, in the relay's order. */
const SUBSTREAM = { small: 0, large: 1 };

const feedOf = (feed: string, kind: TrackKind): Feed => ({ feed, mid: String(TRACK_KINDS.indexOf(kind)) });
const sizedFeedOf = (feed: string, kind: TrackKind, small: boolean): Feed => ({
  ...feedOf(feed, kind),
  ...(kind === 'camera' && { substream: small ? SUBSTREAM.small : SUBSTREAM.large }),
});
const sectionKey = ({ feed, mid }: Feed) => `${feed} ${mid}`;

/**
 * What is to be received from now on of what is sent, what no more, and what in another size. Who publishes anew begins
 * anew; of a publisher that went the relay itself lets go.
 */
export function changes(
  known: Viewer['publications'],
  wanted: readonly Watched[],
  publishes: (publisher: string) => boolean,
) {
  const streams: Feed[] = [];
  const ended: Feed[] = [];
  const resized: Feed[] = [];
  for (const { publisher, number, kinds, small } of wanted) {
    const last = known.get(publisher);
    const had = last?.number === number ? last : null;
    const before = had?.kinds ?? [];
    streams.push(...kinds.filter((k) => !before.includes(k)).map((k) => sizedFeedOf(publisher, k, small)));
    ended.push(...before.filter((k) => !kinds.includes(k)).map((k) => feedOf(publisher, k)));
    if (had && had.small !== small && before.includes('camera') && kinds.includes('camera'))
      resized.push(sizedFeedOf(publisher, 'camera', small));
  }
  for (const [publisher, { kinds }] of known)
    if (!wanted.some((w) => w.publisher === publisher) && publishes(publisher))
      ended.push(...kinds.map((k) => feedOf(publisher, k)));
  return { streams, ended, resized };
}

function sdpOf(reply: Reply): string {
  if (!reply.jsep) throw new Error('The relay gave no answer.');
  return reply.jsep.sdp;
}

const placesOf = (streams: RelayStream[]): StreamPlace[] =>
  streams
    .map((s) => ({ mid: s.mid, member: s.feed_id, kind: TRACK_KINDS[Number(s.feed_mid)]! }))
    .filter((s) => s.kind);

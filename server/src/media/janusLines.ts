import { RelayError, type JanusClient, type Reply } from './janusClient';
import type { Publication } from './relay';
import { Turns } from '../turns';

/** A publisher's sound on its way into a line. */
interface Feed {
  room: string;
  publisher: string;
  /** The participant of the line that takes it. */
  handle: number;
  stream: number;
}

interface Line {
  handle: number;
  feeds: Map<string, Feed>;
  /** What is being played, and what waits for its end. */
  playing: { file: string; over: () => void } | null;
  played: number;
}

/** The relay's own words for a line that is not there. */
const NO_SUCH_ROOM = 485;
/** The sound of a publisher is its first section; Opus has this number on its way into a line. */
const SOUND = { mid: '0', pt: 111 };

const keyOf = (room: string, { publisher, number }: Publication) => `${room}/${publisher}/${number}`;

/**
 * Callers' lines by the relay's AudioBridge plugin: one room of it each. The caller is in it, hears only, and with them one
 * plain RTP participant for each publisher whose sound the VideoRoom plugin passes on to it on loopback. What is closed at
 * the VideoRoom is not passed on there either.
 */
export class JanusLines {
  readonly #lines = new Map<string, Line>();
  readonly #turns = new Turns();
  #control: Promise<number> | null = null;

  constructor(
    readonly client: JanusClient,
    /** A request to the VideoRoom plugin. */
    readonly askRoom: (body: Record<string, unknown>) => Promise<Reply>,
  ) {}

  /** The relay has forgotten everything. */
  forget() {
    this.#control = null;
    for (const line of this.#lines.values()) line.playing?.over();
    this.#lines.clear();
  }

  async open(line: string, sdp: string): Promise<string> {
    await this.close(line);
    await this.#ask({
      request: 'create',
      room: line,
      sampling_rate: 48_000,
      allow_rtp_participants: true,
      audiolevel_event: false,
    });
    const handle = await this.client.attach('audiobridge');
    try {
      const join = { request: 'join', room: line, id: 'caller', muted: true };
      const { jsep } = await this.client.request(handle, join, { type: 'offer', sdp });
      if (!jsep) throw new Error('The relay gave no answer.');
      const known: Line = { handle, feeds: new Map(), playing: null, played: 0 };
      this.#lines.set(line, known);
      this.client.onEvent(handle, (data) => {
        if (data.audiobridge === 'announcement-stopped' && known.playing?.file === data.file_id)
          this.#stopped(known);
      });
      return jsep.sdp;
    } catch (error) {
      await this.client.detach(handle);
      throw error;
    }
  }

  mix(line: string, room: string, publications: readonly Publication[]): Promise<void> {
    return this.#turns.take(line, async () => {
      const known = this.#lines.get(line);
      if (!known) return;
      const wanted = new Map(publications.map((p) => [keyOf(room, p), p]));
      for (const [key, feed] of known.feeds)
        if (!wanted.has(key)) {
          known.feeds.delete(key);
          await this.#unfeed(feed);
        }
      for (const [key, { publisher }] of wanted)
        if (!known.feeds.has(key)) known.feeds.set(key, await this.#feed(line, room, publisher));
    });
  }

  async #feed(line: string, room: string, publisher: string): Promise<Feed> {
    const handle = await this.client.attach('audiobridge');
    try {
      // Without an address of its own it takes what comes, from wherever on this machine.
      const join = { request: 'join', room: line, id: publisher, rtp: { payload_type: SOUND.pt } };
      const { data } = await this.client.request(handle, join);
      const { port } = data.rtp as { port: number };
      return { room, publisher, handle, stream: await this.#forward(room, publisher, port) };
    } catch (error) {
      await this.client.detach(handle);
      throw error;
    }
  }

  async #unfeed({ room, publisher, handle, stream }: Feed) {
    await this.#unforward(room, publisher, stream);
    await this.client.detach(handle);
  }

  /** Passes a publisher's sound on to a port of this machine; gives what ends it. */
  async pass(room: string, publisher: string, port: number): Promise<() => Promise<void>> {
    const stream = await this.#forward(room, publisher, port);
    return () => this.#unforward(room, publisher, stream);
  }

  async #forward(room: string, publisher: string, port: number): Promise<number> {
    const reply = await this.askRoom({
      ...{ request: 'rtp_forward', room, publisher_id: publisher },
      ...{ host: '127.0.0.1', streams: [{ ...SOUND, port }] },
    });
    const [forwarder] = reply.data.forwarders as { stream_id: number }[];
    return forwarder!.stream_id;
  }

  /** A publisher that is gone took its forwarders with it. */
  async #unforward(room: string, publisher: string, stream: number) {
    const stop = { request: 'stop_rtp_forward', room, publisher_id: publisher, stream_id: stream };
    await this.askRoom(stop).catch((error: unknown) => {
      if (!(error instanceof RelayError)) throw error;
    });
  }

  async play(line: string, file: string): Promise<void> {
    const known = this.#lines.get(line);
    if (!known) return;
    const before = known.playing;
    if (before) {
      this.#stopped(known);
      await this.#ask({ request: 'stop_file', room: line, file_id: before.file }).catch(() => {});
    }
    const id = `said-${++known.played}`;
    const heard = new Promise<void>((over) => (known.playing = { file: id, over }));
    try {
      await this.#ask({ request: 'play_file', room: line, file_id: id, filename: file });
    } catch (error) {
      if (known.playing?.file === id) this.#stopped(known);
      throw error;
    }
    return heard;
  }

  #stopped(line: Line) {
    const { playing } = line;
    line.playing = null;
    playing?.over();
  }

  close(line: string): Promise<void> {
    return this.#turns.take(line, async () => {
      const known = this.#lines.get(line);
      this.#lines.delete(line);
      if (known) {
        this.#stopped(known);
        for (const feed of known.feeds.values()) await this.#unfeed(feed);
        await this.client.detach(known.handle);
      }
      await this.#ask({ request: 'destroy', room: line }).catch((error: unknown) => {
        if (!(error instanceof RelayError) || error.code !== NO_SUCH_ROOM) throw error;
      });
    });
  }

  async #ask(body: Record<string, unknown>): Promise<Reply> {
    this.#control ??= this.client.attach('audiobridge').catch((error: unknown) => {
      this.#control = null;
      throw error;
    });
    return this.client.request(await this.#control, body);
  }
}

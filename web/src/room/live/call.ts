import type { Line, RelayOffer, RoomCommand } from '@nimble-bell/core/api';
import { TRACK_KINDS as KINDS, type TrackKind } from '@nimble-bell/core/limits';
import { isOn, sends, type RoomState } from '@nimble-bell/core/room';
import type { RoomConnection } from './connection';
import { acquire, gathered, sharpened, soundWith } from './devices';
import type { Sample } from './judged';
import { Looks } from './looks';

export type { TrackKind };

export interface RoomTrack {
  member: string;
  kind: TrackKind;
  track: MediaStreamTrack;
}

/**
 * One's picture goes out in two sizes at once (W3C webrtc, simulcast), the large one first, as the relay takes them: of 25
 * on a wall each page receives the small ones.
 */
const SIZES: RTCRtpEncodingParameters[] = [
  { rid: 'l', maxBitrate: 900_000 },
  { rid: 's', scaleResolutionDownBy: 3, maxBitrate: 120_000 },
];
/** What of one's picture, both sizes, and of what one presents is sent over a line. */
const SENT_OVER: Record<Line, Record<'camera' | 'screen', RTCRtpEncodingParameters[]>> = {
  good: { camera: [{ active: true }, { active: true }], screen: [{ maxFramerate: 30 }] },
  weak: { camera: [{ active: false }, { active: true }], screen: [{ maxFramerate: 5 }] },
  poor: { camera: [{ active: false }, { active: false }], screen: [{ maxFramerate: 2 }] },
};

/** A device that ends by itself, or by the browser's own button, is off in the room. */
const OFF: Record<TrackKind, RoomCommand> = {
  sound: { type: 'microphone', on: false },
  camera: { type: 'camera', on: false },
  screen: { type: 'present', on: false },
};

/** Of a connection's statistics what is read here (W3C webrtc-stats). */
interface Stats {
  id: string;
  type: string;
  nominated?: boolean;
  currentRoundTripTime?: number;
  packetsLost?: number;
  packetsReceived?: number;
  fractionLost?: number;
}

const lostOnTheWay = (report: RTCStatsReport): number[] => {
  const shares: number[] = [];
  report.forEach((of: Stats) => {
    if (of.type === 'remote-inbound-rtp') shares.push(of.fractionLost ?? 0);
  });
  return shares;
};

/**
 * Sound and picture of one page: one connection that sends (sound, camera, screen, in this order) and one that
 * receives. What is sent follows the room's state; whether it is passed on, the relay decides by the server's word.
 */
export class Call {
  #sending: RTCPeerConnection | null = null;
  #receiving: RTCPeerConnection | null = null;
  #own: Partial<Record<TrackKind, MediaStreamTrack>> = {};
  /** One's voice with the sound of what one presents, while there are both. */
  #mixed: MediaStreamTrack | null = null;
  #incoming: RoomTrack[] = [];
  #tracks: readonly RoomTrack[] = [];
  #me = '';
  #listeners = new Set<() => void>();
  #places = new Map<string, { member: string; kind: TrackKind }>();
  #publishing: Promise<void> = Promise.resolve();
  #wasOn = { camera: false, screen: false };
  /** The relay has passed one's camera on since it was published. */
  #passed = false;

  /** Whose cameras the page shows. */
  readonly looks: Looks;
  #line: Line = 'good';
  #counted = new Map<string, { lost: number; all: number }>();

  /** `hears`: whether it takes in what others send. */
  constructor(
    readonly connection: RoomConnection,
    readonly device: (kind: TrackKind) => Promise<MediaStreamTrack> = acquire,
    readonly hears = true,
  ) {
    this.looks = new Looks(connection);
    connection.attachMedia(
      (offer) => void this.#receive(offer),
      () => this.#begin(),
      (kind) => this.#pass(kind),
    );
  }

  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  /** Every track to be shown: what arrives, and one's own camera and screen. A new list with every change. */
  readonly tracks = () => this.#tracks;

  /** Opens a device before the room is asked, so that a refusal by the browser costs nothing. */
  async open(kind: TrackKind): Promise<void> {
    if (!this.#own[kind]) this.#take(kind, await this.device(kind));
    if (!this.#sending) await this.#publish();
    else await this.#sender(kind)?.replaceTrack(this.#out(kind));
    await this.#mix();
    this.#tell();
  }

  /** Another device was chosen: what is open goes on with it. Where it cannot be opened, the one before stays. */
  async change(kind: TrackKind): Promise<void> {
    const before = this.#own[kind];
    if (!before) return;
    const track = await this.device(kind);
    track.enabled = before.enabled;
    this.#take(kind, track);
    before.stop();
    await this.#sender(kind)?.replaceTrack(this.#out(kind));
    await this.#mix();
    this.#tell();
  }

  /** What is presented goes on as sharp, or as what moves. */
  presentAs(presents: 'sharp' | 'moving') {
    if (this.#own.screen) sharpened(this.#own.screen, presents);
  }

  #take(kind: TrackKind, track: MediaStreamTrack) {
    this.#own[kind] = track;
    track.addEventListener('ended', () => {
      if (this.#own[kind] !== track) return;
      delete this.#own[kind];
      void this.#mix();
      void this.connection.command(OFF[kind]);
      this.#tell();
    });
  }

  /** Lets the devices follow the room: a switch that went off, by oneself or by a teacher, ends the sending. */
  follow(state: RoomState, me: string) {
    if (this.#me !== me) {
      this.#me = me;
      this.#tell();
    }
    const sound = this.#own.sound;
    if (sound) sound.enabled = sends(state, me, 'sound');
    // A device is opened before the room knows of it: only a switch that was on and went off ends it.
    const now = { camera: isOn(state, me, 'camera'), screen: isOn(state, me, 'screen') };
    for (const kind of ['camera', 'screen'] as const) if (this.#wasOn[kind] && !now[kind]) this.#drop(kind);
    this.#wasOn = now;
  }

  /** How loud each member is now, 0 to 1, as received. */
  levels(): Map<string, number> {
    const levels = new Map<string, number>();
    for (const transceiver of this.#receiving?.getTransceivers() ?? []) {
      const place = transceiver.mid === null ? undefined : this.#places.get(transceiver.mid);
      if (place?.kind !== 'sound') continue;
      const source = transceiver.receiver.getSynchronizationSources()[0];
      const fresh = source && performance.timeOrigin + performance.now() - source.timestamp < 600;
      if (fresh && source.audioLevel !== undefined) levels.set(place.member, source.audioLevel);
    }
    return levels;
  }

  /** Less is sent over a worse line: a smaller picture and fewer frames of what is presented, then none of the picture. */
  ease(line: Line) {
    if (this.#line === line) return;
    this.#line = line;
    this.looks.off(line === 'poor');
    void this.#eased();
  }

  async #eased() {
    for (const kind of ['camera', 'screen'] as const) {
      const sender = this.#sender(kind);
      const parameters = sender?.getParameters();
      parameters?.encodings?.forEach((sent, i) => Object.assign(sent, SENT_OVER[this.#line][kind][i]));
      if (parameters) await sender!.setParameters(parameters).catch(() => {});
    }
  }

  /** What was lost since this was asked before, and how long there and back takes; null where nothing goes or comes. */
  async measured(): Promise<Sample | null> {
    const lines = [this.#sending, this.#receiving].filter((pc) => pc?.connectionState === 'connected');
    const reports = await Promise.all(lines.map((pc) => pc!.getStats()));
    let roundTrip = 0;
    let [lost, all] = [0, 0];
    for (const report of reports)
      report.forEach((of: Stats) => {
        if (of.type === 'candidate-pair' && of.nominated)
          roundTrip = Math.max(roundTrip, 1000 * (of.currentRoundTripTime ?? 0));
        if (of.type !== 'inbound-rtp') return;
        const now = { lost: of.packetsLost ?? 0, all: (of.packetsLost ?? 0) + (of.packetsReceived ?? 0) };
        const before = this.#counted.get(of.id) ?? now;
        this.#counted.set(of.id, now);
        lost += Math.max(0, now.lost - before.lost);
        all += Math.max(0, now.all - before.all);
      });
    const sent = Math.max(0, ...reports.flatMap(lostOnTheWay));
    return lines.length ? { lost: Math.max(sent, all > 20 ? lost / all : 0), roundTrip } : null;
  }

  close() {
    for (const track of Object.values(this.#own)) {
      track.stop();
      soundWith(track)?.stop();
    }
    this.#mixed?.stop();
    this.#mixed = null;
    this.#own = {};
    this.#sending?.close();
    this.#receiving?.close();
    this.#sending = this.#receiving = null;
    this.#incoming = [];
  }

  /** After entering, and whenever server or relay have been away: everything is set up anew. */
  #begin() {
    this.#receiving?.close();
    this.#receiving = null;
    this.#incoming = [];
    this.#tell();
    if (!this.connection.view.relay) return;
    const sent = this.#sending !== null || Object.keys(this.#own).length > 0;
    this.#sending?.close();
    this.#sending = null;
    if (this.hears) void this.connection.ask('watch', this.looks.now());
    if (sent) void this.#publish();
  }

  #publish(): Promise<void> {
    this.#publishing = this.#publishing.then(() => this.#sendOffer()).catch(() => {});
    return this.#publishing;
  }

  async #sendOffer() {
    if (this.#sending || !this.connection.view.relay) return;
    const pc = new RTCPeerConnection();
    this.#sending = pc;
    this.#passed = false;
    for (const kind of KINDS)
      pc.addTransceiver(this.#out(kind) ?? (kind === 'sound' ? 'audio' : 'video'), {
        direction: 'sendonly',
        ...(kind === 'camera' && { sendEncodings: SIZES }),
      });
    await pc.setLocalDescription();
    await gathered(pc);
    const reply = await this.connection.ask('publish', { sdp: pc.localDescription!.sdp });
    if (this.#sending !== pc) return pc.close();
    if (!reply?.ok) {
      pc.close();
      this.#sending = null;
      return;
    }
    await pc.setRemoteDescription({ type: 'answer', sdp: reply.sdp });
    for (const kind of KINDS) await this.#sender(kind)?.replaceTrack(this.#out(kind));
    await this.#eased();
  }

  async #receive(offer: RelayOffer) {
    const pc = (this.#receiving ??= new RTCPeerConnection());
    await pc.setRemoteDescription({ type: 'offer', sdp: offer.sdp });
    await pc.setLocalDescription();
    await gathered(pc);
    this.#places = new Map(offer.streams.map((s) => [s.mid, s]));
    this.#incoming = pc.getTransceivers().flatMap((t) => {
      const place = t.mid === null ? undefined : this.#places.get(t.mid);
      return place ? [{ member: place.member, kind: place.kind, track: t.receiver.track }] : [];
    });
    await this.connection.ask('answer', { sdp: pc.localDescription!.sdp });
    this.#tell();
  }

  /**
   * A camera is sent once it is passed on: which of its two sizes a packet is of is said in the first ones alone, and of
   * those that were not passed on the relay knows nothing.
   */
  #pass(kind: TrackKind) {
    if (kind !== 'camera') return;
    this.#passed = true;
    void this.#sender(kind)?.replaceTrack(this.#out(kind));
  }

  #out(kind: TrackKind): MediaStreamTrack | null {
    if (kind === 'camera' && !this.#passed) return null;
    return (kind === 'sound' && this.#mixed) || (this.#own[kind] ?? null);
  }

  /**
   * The sound of what one presents goes with one's voice, over the same track: it is passed on while one's microphone is
   * on, as the limits have it, and while nothing is presented there is none.
   */
  async #mix() {
    const [voice, beside] = [this.#own.sound, soundWith(this.#own.screen)];
    if (!this.#mixed && !beside) return;
    this.#mixed?.stop();
    this.#mixed = voice && beside ? (await import('./mixed')).mixed(voice, beside) : null;
    await this.#sender('sound')?.replaceTrack(this.#out('sound'));
  }

  #sender(kind: TrackKind) {
    return this.#sending?.getTransceivers()[KINDS.indexOf(kind)]?.sender;
  }

  #drop(kind: TrackKind) {
    const track = this.#own[kind];
    track?.stop();
    soundWith(track)?.stop();
    delete this.#own[kind];
    void this.#mix();
    void this.#sender(kind)?.replaceTrack(null);
    this.#tell();
  }

  #tell() {
    const own = (['camera', 'screen'] as const).flatMap((kind) => {
      const track = this.#own[kind];
      return track ? [{ member: this.#me, kind, track }] : [];
    });
    this.#tracks = [...this.#incoming, ...own];
    for (const listener of this.#listeners) listener();
  }
}

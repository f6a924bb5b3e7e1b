import type { RoomState } from '@nimble-bell/core/room';
import { evolve, newRoom } from '@nimble-bell/core/room';
import type { RelayOffer, StoredEvent } from '@nimble-bell/core/api';
import { Call, type TrackKind } from './call';
import type { RoomConnection } from './connection';
import { chooseDevices } from './ownDevices';

class FakeTrack extends EventTarget {
  enabled = true;
  stopped = false;
  constructor(readonly kind: string) {
    super();
  }
  stop() {
    this.stopped = true;
  }
}

interface FakeTransceiver {
  mid: string;
  sender: { track: unknown; encodings: object[]; replaceTrack: (track: unknown) => Promise<void> };
  receiver: { track: FakeTrack; getSynchronizationSources: () => object[] };
}

/** As much of a peer connection as a call touches. */
class FakePeer extends EventTarget {
  static made: FakePeer[] = [];
  iceGatheringState = 'complete';
  closed = false;
  remote: unknown[] = [];
  transceivers: FakeTransceiver[] = [];
  localDescription = { sdp: 'local' };
  constructor() {
    super();
    FakePeer.made.push(this);
  }
  addTransceiver(track: unknown, { sendEncodings = [{}] }: { sendEncodings?: object[] } = {}) {
    const sender = {
      encodings: sendEncodings.map((e) => ({ ...e })),
      getParameters: () => ({ encodings: sender.encodings.map((e) => ({ ...e })) }),
      setParameters: async ({ encodings }: { encodings: object[] }) => void (sender.encodings = encodings),
      track: typeof track === 'string' ? null : track,
      replaceTrack: async (next: unknown) => void (sender.track = next),
    };
    const mid = String(this.transceivers.length);
    this.transceivers.push({
      mid,
      sender,
      receiver: { track: new FakeTrack('video'), getSynchronizationSources: () => [] },
    });
  }
  getTransceivers() {
    return this.transceivers;
  }
  async setLocalDescription() {}
  async setRemoteDescription(description: { type: string }) {
    this.remote.push(description);
    if (description.type === 'offer') this.addTransceiver('video');
  }
  close() {
    this.closed = true;
  }
}

let devices: string[] = [];
beforeEach(() => {
  FakePeer.made = [];
  devices = [];
  const get = async (what: { audio?: unknown }) => {
    const kind = what.audio ? 'audio' : 'video';
    devices.push(kind);
    const tracks = [new FakeTrack(kind)];
    return { getTracks: () => tracks, getVideoTracks: () => tracks };
  };
  Object.defineProperty(navigator, 'mediaDevices', {
    value: { getUserMedia: get, getDisplayMedia: () => get({}) },
    configurable: true,
  });
  Object.assign(globalThis, { RTCPeerConnection: FakePeer });
});

function setUp() {
  const asked: [string, unknown][] = [];
  const commands: object[] = [];
  let begin = () => {};
  let offer: (offer: RelayOffer) => void = () => {};
  let pass: (kind: TrackKind) => void = () => {};
  const connection = {
    view: { relay: true, status: 'in' },
    attachMedia: (onOffer: typeof offer, onEntered: typeof begin, onPassed: typeof pass) => (
      (offer = onOffer),
      (begin = onEntered),
      (pass = onPassed)
    ),
    ask: async (name: string, body: unknown) => (asked.push([name, body]), { ok: true, sdp: 'answer' }),
    command: async (command: object) => void commands.push(command),
  };
  const call = new Call(connection as unknown as RoomConnection);
  return {
    ...{ call, asked, commands, connection },
    begin: () => begin(),
    offer: (o: RelayOffer) => offer(o),
    pass: (kind: TrackKind) => pass(kind),
  };
}

const state = (...events: object[]): RoomState =>
  [{ type: 'entered', member: 'maren', name: 'Maren', role: 'teacher', place: 'class' }, ...events]
    .map((e, i) => ({ ...e, seq: i + 1, at: 0 }) as StoredEvent)
    .reduce(evolve, newRoom());
const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

test('the first device publishes three sections; the next only takes its place in them', async () => {
  const { call, asked, pass } = setUp();
  await call.open('sound');
  expect(asked.map(([name]) => name)).toEqual(['publish']);
  const [sending] = FakePeer.made;
  expect(sending!.transceivers).toHaveLength(3);
  await call.open('camera');
  expect(asked).toHaveLength(1);
  const sent = () => sending!.transceivers.map((t) => t.sender.track !== null);
  // A camera waits until it is passed on: its sizes are told apart by its first packets alone.
  expect(sent()).toEqual([true, false, false]);
  pass('sound');
  expect(sent()).toEqual([true, false, false]);
  pass('camera');
  expect(sent()).toEqual([true, true, false]);
  expect(devices).toEqual(['audio', 'video']);
});

test('a device that opened before the room knows of it stays; a switch that went off ends it', async () => {
  const { call } = setUp();
  await call.open('camera');
  call.follow(state(), 'maren');
  expect(call.tracks().map((t) => t.kind)).toEqual(['camera']);
  call.follow(state({ type: 'camera', member: 'maren', on: true }), 'maren');
  const [own] = call.tracks();
  expect(own?.member).toBe('maren');
  call.follow(state(), 'maren');
  expect(call.tracks()).toEqual([]);
  expect((own!.track as unknown as FakeTrack).stopped).toBe(true);
});

test('one’s picture goes out small and large; over a weak line small alone, over a poor one not at all', async () => {
  const { call } = setUp();
  await call.open('camera');
  const sent = async () => {
    await settle();
    const [, camera, screen] = FakePeer.made[0]!.transceivers.map((t) => t.sender.encodings);
    return { camera: camera!.map((e) => (e as { active: boolean }).active), screen };
  };
  expect(FakePeer.made[0]!.transceivers[1]!.sender.encodings).toMatchObject([{ rid: 'l' }, { rid: 's' }]);
  expect(await sent()).toEqual({ camera: [true, true], screen: [{ maxFramerate: 30 }] });
  call.ease('weak');
  expect(await sent()).toEqual({ camera: [false, true], screen: [{ maxFramerate: 5 }] });
  call.ease('poor');
  expect((await sent()).camera).toEqual([false, false]);
  call.ease('good');
  expect((await sent()).camera).toEqual([true, true]);
});

test('sound is silent until the room lets it out, and the device stays open', async () => {
  const { call } = setUp();
  await call.open('sound');
  const track = FakePeer.made[0]!.transceivers[0]!.sender.track as FakeTrack;
  call.follow(state(), 'maren');
  expect(track.enabled).toBe(false);
  call.follow(state({ type: 'microphone', member: 'maren', on: true }), 'maren');
  expect(track.enabled).toBe(true);
  expect(track.stopped).toBe(false);
});

test('a device that is unplugged is off in the room too', async () => {
  const { call, commands, pass } = setUp();
  for (const kind of ['sound', 'camera'] as const) {
    await call.open(kind);
    pass(kind);
    const [sound, camera] = FakePeer.made[0]!.transceivers;
    ((kind === 'sound' ? sound : camera)!.sender.track as FakeTrack).dispatchEvent(new Event('ended'));
  }
  expect(commands).toEqual([
    { type: 'microphone', on: false },
    { type: 'camera', on: false },
  ]);
});

test('a screen that the browser stops is told to the room', async () => {
  const { call, commands } = setUp();
  await call.open('screen');
  const track = FakePeer.made[0]!.transceivers[2]!.sender.track as FakeTrack;
  track.dispatchEvent(new Event('ended'));
  expect(commands).toEqual([{ type: 'present', on: false }]);
  expect(call.tracks()).toEqual([]);
});

test('an offer is answered, and what arrives is known by member and kind', async () => {
  const { call, asked, offer } = setUp();
  offer({ sdp: 'offer', streams: [{ mid: '0', member: 'ana', kind: 'camera' }] });
  await settle();
  await settle();
  expect(asked.map(([name]) => name)).toEqual(['answer']);
  expect(call.tracks().map((t) => [t.member, t.kind])).toEqual([['ana', 'camera']]);
});

test('after the relay was away everything is set up anew, with the devices that are open', async () => {
  const { call, asked, begin, connection, pass } = setUp();
  await call.open('camera');
  connection.view.relay = false;
  begin();
  await settle();
  expect(asked.map(([name]) => name)).toEqual(['publish']);
  connection.view.relay = true;
  begin();
  await settle();
  await settle();
  expect(asked.map(([name]) => name)).toEqual(['publish', 'watch', 'publish']);
  expect(FakePeer.made[0]!.closed).toBe(true);
  const camera = () => FakePeer.made.at(-1)!.transceivers[1]!.sender.track;
  expect(camera()).toBeNull();
  pass('camera');
  expect(camera()).not.toBeNull();
  call.close();
  expect(FakePeer.made.at(-1)!.closed).toBe(true);
});

test('a refusal by the browser is passed on; a missing device has its stand-in', async () => {
  const { call } = setUp();
  const refuse = (name: string) => async () => {
    throw new DOMException('no', name);
  };
  navigator.mediaDevices.getUserMedia = refuse('NotAllowedError');
  await expect(call.open('camera')).rejects.toThrow('no');
  expect(call.tracks()).toEqual([]);
  navigator.mediaDevices.getUserMedia = refuse('NotFoundError');
  const canvas = {
    getContext: () => new Proxy({}, { get: () => () => {}, set: () => true }),
    captureStream: () => ({ getVideoTracks: () => [new FakeTrack('video')] }),
  };
  const create = document.createElement.bind(document);
  document.createElement = ((name: string) =>
    name === 'canvas' ? canvas : create(name)) as typeof document.createElement;
  await call.open('camera');
  expect(call.tracks()).toHaveLength(1);
  call.close();
});

test('the sound of what one presents goes with one’s voice, and with nothing once either is gone', async () => {
  const made: { from: unknown[]; track: FakeTrack; closed: boolean }[] = [];
  class FakeAudio {
    readonly one = { from: [] as unknown[], track: new FakeTrack('audio'), closed: false };
    constructor() {
      made.push(this.one);
    }
    createMediaStreamDestination = () => ({ stream: { getAudioTracks: () => [this.one.track] } });
    createMediaStreamSource = (stream: { of: unknown }) => ({
      connect: () => void this.one.from.push(stream.of),
    });
    close = async () => void (this.one.closed = true);
  }
  class FakeStream {
    readonly of: unknown;
    constructor([of]: unknown[]) {
      this.of = of;
    }
  }
  Object.assign(globalThis, { AudioContext: FakeAudio, MediaStream: FakeStream });
  const [voice, tab] = [new FakeTrack('audio'), new FakeTrack('audio')];
  const shown: FakeTrack[] = [];
  Object.defineProperty(navigator, 'mediaDevices', {
    value: {
      getUserMedia: async () => ({ getTracks: () => [voice] }),
      getDisplayMedia: async ({ audio }: { audio: boolean }) => {
        const video = new FakeTrack('video');
        shown.push(video);
        return { getTracks: () => (audio ? [tab, video] : [video]) };
      },
    },
    configurable: true,
  });
  chooseDevices({ presents: 'moving' });
  const { call } = setUp();
  await call.open('screen');
  const sent = () => FakePeer.made[0]!.transceivers[0]!.sender.track;
  // Without a microphone there is no way out for it.
  expect([sent() ?? null, made]).toEqual([null, []]);
  await call.open('sound');
  expect(sent()).toBe(made[0]!.track);
  expect(made[0]!.from).toEqual([voice, tab]);
  shown[0]!.dispatchEvent(new Event('ended'));
  await new Promise((resolve) => setTimeout(resolve));
  expect([sent(), made[0]!.closed]).toEqual([voice, true]);
  // Pages and text have no sound.
  chooseDevices({ presents: 'sharp' });
  await call.open('screen');
  expect(made).toHaveLength(1);
  call.close();
  expect(voice.stopped).toBe(true);
});

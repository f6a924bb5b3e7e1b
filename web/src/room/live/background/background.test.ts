import { forgetNotices } from '../../../app/notices';
import { followsDevice } from '../drawn';
import { chooseDevices, ownDevices } from '../ownDevices';
import { hide } from './hide';
import type { Begin, Said } from './messages';
import { Pace } from './pace';

class FakeTrack extends EventTarget {
  stopped = 0;
  ended = 0;
  writable = 'writes';
  constructor() {
    super();
    this.addEventListener('ended', () => this.ended++);
  }
  readyState = 'live';
  stop() {
    this.stopped++;
    this.readyState = 'ended';
  }
}
const streamOf = (track: FakeTrack) =>
  ({ getTracks: () => [track], getVideoTracks: () => [track] }) as unknown as MediaStream;

class FakeWorker {
  static last: FakeWorker;
  begun: Begin[] = [];
  over = false;
  onmessage: (event: { data: Said }) => void = () => {};
  onerror: () => void = () => {};
  constructor() {
    FakeWorker.last = this;
  }
  postMessage(begin: Begin) {
    this.begun.push(begin);
  }
  terminate() {
    this.over = true;
  }
}

/** The worker itself is seen in a browser: here is what the page does with what it says. */
jest.mock('./newWorker', () => ({ newWorker: () => new FakeWorker() }));

beforeEach(() => {
  forgetNotices();
  Object.assign(window, {
    MediaStreamTrackProcessor: class {
      readable = 'reads';
    },
    MediaStreamTrackGenerator: FakeTrack,
  });
});

const hidden = async () => {
  chooseDevices({ behind: 'blurred' });
  const camera = new FakeTrack();
  const track = (await hide(streamOf(camera), 'blurred', '')) as unknown as FakeTrack;
  return { camera, track, worker: FakeWorker.last };
};

test('a device that keeps up goes on; one that is too slow is said so once it is warm, and not for one long frame', () => {
  const fast = new Pace();
  for (let i = 0; i < 200; i++) expect(fast.holds(i % 7 ? 20 : 400)).toBe(true);
  const slow = new Pace();
  // The first ones are long for every device.
  const held = Array.from({ length: 45 }, (_, i) => slow.holds(i < 5 ? 5000 : 70));
  expect(held.indexOf(false)).toBe(24);
});

test('frames go from the camera by the worker to another track; when that stops all of it does', async () => {
  const { camera, track, worker } = await hidden();
  expect(track).not.toBe(camera);
  expect(worker.begun).toEqual([
    { behind: 'blurred', picture: null, reads: 'reads', writes: 'writes', canvas: null },
  ]);
  track.stop();
  expect([worker.over, camera.stopped, track.ended]).toEqual([true, 1, 0]);
  track.stop();
  expect(camera.stopped).toBe(1);
});

test('too slow, or not at all: the camera is off, never what is behind somebody by a fault', async () => {
  for (const fault of ['slow', 'cannot'] as const) {
    const { camera, track, worker } = await hidden();
    worker.onmessage({ data: fault });
    expect([worker.over, camera.stopped, track.ended]).toEqual([true, 1, 1]);
    expect(ownDevices.get().behind).toBe('plain');
  }
  const { track, worker } = await hidden();
  worker.onerror();
  expect(track.ended).toBe(1);
});

test('a program that fails while the picture is still read opens no camera', async () => {
  chooseDevices({ behind: 'picture' });
  const camera = new FakeTrack();
  const decoded = { resolve: () => {} };
  jest
    .spyOn(window, 'Image')
    .mockImplementation(
      () => ({ decode: () => new Promise<void>((resolve) => (decoded.resolve = resolve)) }) as never,
    );
  Object.assign(globalThis, { createImageBitmap: async () => ({}) });
  const opening = hide(streamOf(camera), 'picture', 'data:image/jpeg;base64,AA');
  await Promise.resolve();
  FakeWorker.last.onerror();
  decoded.resolve();
  await expect(opening).rejects.toThrow('cannot draw another background');
  expect([camera.stopped, FakeWorker.last.begun]).toEqual([1, []]);
  jest.restoreAllMocks();
});

test('a camera that is unplugged ends what is drawn from it, once', () => {
  const [camera, drawn] = [new FakeTrack(), new FakeTrack()];
  const end = jest.fn();
  followsDevice(drawn as unknown as MediaStreamTrack, streamOf(camera), end);
  camera.dispatchEvent(new Event('ended'));
  camera.dispatchEvent(new Event('ended'));
  expect([end.mock.calls.length, drawn.ended, camera.stopped]).toEqual([1, 1, 1]);
});

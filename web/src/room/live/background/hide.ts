import { say } from '../../../app/notices';
import { followsDevice } from '../drawn';
import { chooseDevices } from '../ownDevices';
import type { Begin, Said } from './messages';
import { newWorker } from './newWorker';

const FRAMES = 20;

const WHY: Record<Exclude<Said, 'drawn'>, string> = {
  slow: 'This device is too slow to draw 15 pictures a second with another background',
  cannot: 'This browser cannot draw another background',
};

/** Of Chromium (W3C mediacapture-transform): frames go to a worker and back without the page. */
interface Direct {
  MediaStreamTrackProcessor: new (of: { track: MediaStreamTrack }) => {
    readable: ReadableStream<VideoFrame>;
  };
  MediaStreamTrackGenerator: new (of: { kind: 'video' }) => MediaStreamTrack & {
    writable: WritableStream<VideoFrame>;
  };
}
const direct = () =>
  'MediaStreamTrackProcessor' in window && 'MediaStreamTrackGenerator' in window
    ? (window as unknown as Direct)
    : null;

interface Way {
  track: MediaStreamTrack;
  begin: Pick<Begin, 'reads' | 'writes' | 'canvas'>;
  /** The next frame may come. */
  next: () => void;
  end: () => void;
}

function directly(
  { MediaStreamTrackProcessor, MediaStreamTrackGenerator }: Direct,
  camera: MediaStreamTrack,
): Way {
  const track = new MediaStreamTrackGenerator({ kind: 'video' });
  const { readable } = new MediaStreamTrackProcessor({ track: camera });
  return {
    track,
    begin: { reads: readable, writes: track.writable, canvas: null },
    next: () => {},
    end: () => {},
  };
}

/** By the page: frame for frame, the next when the one before is drawn. */
async function byPage(stream: MediaStream, worker: Worker): Promise<Way> {
  const film = document.createElement('video');
  Object.assign(film, { srcObject: stream, muted: true });
  await film.play();
  const shown = document.createElement('canvas');
  const track = shown.captureStream(FRAMES).getVideoTracks()[0]!;
  let ready = false;
  const timer = setInterval(() => {
    if (!ready || !film.videoWidth) return;
    ready = false;
    void createImageBitmap(film).then((frame) => worker.postMessage({ frame }, [frame]));
  }, 1000 / FRAMES);
  return {
    track,
    begin: { reads: null, writes: null, canvas: shown.transferControlToOffscreen() },
    next: () => (ready = true),
    end: () => clearInterval(timer),
  };
}

/** A picture as it was kept, to be drawn. */
async function drawable(picture: string): Promise<ImageBitmap> {
  const image = new Image();
  image.src = picture;
  await image.decode();
  return createImageBitmap(image);
}

/**
 * A camera's picture with something else behind whoever is in it. Until the first is drawn there is none, and where it
 * cannot be drawn, or not fast enough, the camera is off, with a word: what is behind somebody is not shown by a fault.
 */
export async function hide(
  stream: MediaStream,
  behind: Begin['behind'],
  picture: string,
): Promise<MediaStreamTrack> {
  const worker = newWorker();
  const own = direct();
  const way = own ? directly(own, stream.getVideoTracks()[0]!) : await byPage(stream, worker);
  const { track, gone } = followsDevice(way.track, stream, () => {
    way.end();
    worker.terminate();
  });
  worker.onmessage = ({ data }: MessageEvent<Said>) => {
    if (data === 'drawn') return way.next();
    chooseDevices({ behind: 'plain' });
    say(`${WHY[data]}: your camera is off. Switched on again it shows what is there.`, 'fault');
    gone();
  };
  worker.onerror = () => worker.onmessage!({ data: 'cannot' } as MessageEvent<Said>);
  const shows = behind === 'picture' && picture ? await drawable(picture) : null;
  // Its program may have failed meanwhile, before anybody heard of the track's end.
  if (track.readyState === 'ended') throw new Error(`${WHY.cannot}.`);
  const begin: Begin = { behind, picture: shows, ...way.begin };
  const moved = [begin.picture, begin.reads, begin.writes, begin.canvas].filter((m) => m !== null);
  worker.postMessage(begin, moved as Transferable[]);
  return track;
}

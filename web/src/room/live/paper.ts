import { followsDevice } from './drawn';
import { ownDevices, type Paper } from './ownDevices';

interface Size {
  width: number;
  height: number;
}

/** The part of a camera's picture that is shown of it, and the size that it has once it is turned; pixels. */
export interface Cut {
  from: { x: number; y: number } & Size;
  to: Size;
}

/** What of a camera's picture is the paper: as near as wished, around a place in fractions of it, never past its edge. */
export function cutOf({ width, height }: Size, { turn, closer, x, y }: Paper): Cut {
  const [w, h] = [width / closer, height / closer];
  const along = (centre: number, size: number, whole: number) =>
    Math.min(whole - size, Math.max(0, centre * whole - size / 2));
  const upright = turn % 2 === 0;
  return {
    from: { x: along(x, w, width), y: along(y, h, height), width: w, height: h },
    to: upright ? { width: w, height: h } : { width: h, height: w },
  };
}

const FRAMES = 15;
/** A camera over paper is asked for this: letters have to be read. */
const SHARP = { width: { ideal: 1920 }, height: { ideal: 1080 }, frameRate: FRAMES };

/** A camera over paper as a track to present: turned and cut as it is wished at that moment. */
export async function paperTrack(): Promise<MediaStreamTrack> {
  const { paperCamera } = ownDevices.get();
  const device = paperCamera ? { deviceId: { exact: paperCamera } } : {};
  const stream = await navigator.mediaDevices.getUserMedia({ video: { ...SHARP, ...device } });
  const film = document.createElement('video');
  Object.assign(film, { srcObject: stream, muted: true });
  await film.play();
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d')!;
  const draw = () => {
    const { paper } = ownDevices.get();
    const { from, to } = cutOf({ width: film.videoWidth, height: film.videoHeight }, paper);
    const [width, height] = [Math.round(to.width), Math.round(to.height)];
    // A canvas that is given its size is empty, so it is only given another one.
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
    context.setTransform(1, 0, 0, 1, width / 2, height / 2);
    context.rotate((paper.turn * Math.PI) / 2);
    context.drawImage(
      film,
      ...([from.x, from.y, from.width, from.height] as const),
      ...([-from.width / 2, -from.height / 2, from.width, from.height] as const),
    );
  };
  draw();
  const timer = setInterval(draw, 1000 / FRAMES);
  const track = canvas.captureStream(FRAMES).getVideoTracks()[0]!;
  return followsDevice(track, stream, () => clearInterval(timer)).track;
}

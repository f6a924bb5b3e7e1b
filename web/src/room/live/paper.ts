import { told } from '../../app/told';
import { followsDevice } from './drawn';
import { chooseDevices, ownDevices, type Paper } from './ownDevices';

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

/** Whether the camera that is over the paper has a lamp. */
export const paperLamp = told(false);

/** What a camera may have beside its picture (W3C MediaStream Image Capture). */
interface Lighting {
  torch?: boolean | boolean[];
  exposureCompensation?: { min: number; max: number };
}

/** A camera's lamp and exposure, as they are wished at that moment. */
export function lightingOf(camera: Pick<MediaStreamTrack, 'getCapabilities' | 'applyConstraints'>) {
  // Not every browser says what a camera can.
  const { torch, exposureCompensation: range } = (camera.getCapabilities?.() ?? {}) as Lighting;
  const lamp = torch === true || (Array.isArray(torch) && torch.includes(true));
  let now = { lamp: false, brighter: 0 };
  return {
    lamp,
    /** Gives how many times as bright it is to be drawn, where the camera cannot make it so itself. */
    follow: ({ lamp: wished, brighter }: Pick<Paper, 'lamp' | 'brighter'>): number => {
      if (wished !== now.lamp || brighter !== now.brighter) {
        now = { lamp: wished, brighter };
        const ev = range && Math.min(range.max, Math.max(range.min, brighter / 2));
        const wish = { ...(lamp ? { torch: wished } : {}), ...(range ? { exposureCompensation: ev } : {}) };
        // What is asked for takes the place of all that was. A camera that refuses stays as it was.
        const constraints = { ...SHARP, advanced: [wish] } as MediaTrackConstraints;
        if (lamp || range) void camera.applyConstraints(constraints).catch(() => {});
      }
      return range ? 1 : 2 ** (brighter / 2);
    },
  };
}

/** A camera over paper as a track to present: turned, cut and lit as it is wished at that moment. */
export async function paperTrack(): Promise<MediaStreamTrack> {
  const { paperCamera, paper: before } = ownDevices.get();
  // A lamp that was on is not the next time's.
  if (before.lamp) chooseDevices({ paper: { ...before, lamp: false } });
  const device = paperCamera ? { deviceId: { exact: paperCamera } } : {};
  const stream = await navigator.mediaDevices.getUserMedia({ video: { ...SHARP, ...device } });
  const film = document.createElement('video');
  Object.assign(film, { srcObject: stream, muted: true });
  await film.play();
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d')!;
  const lighting = lightingOf(stream.getVideoTracks()[0]!);
  paperLamp.set(lighting.lamp);
  const draw = () => {
    const { paper } = ownDevices.get();
    const bright = lighting.follow(paper);
    const { from, to } = cutOf({ width: film.videoWidth, height: film.videoHeight }, paper);
    const [width, height] = [Math.round(to.width), Math.round(to.height)];
    // A canvas that is given its size is empty, so it is only given another one.
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
    context.setTransform(1, 0, 0, 1, width / 2, height / 2);
    context.filter = bright === 1 ? 'none' : `brightness(${bright.toFixed(2)})`;
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
  const end = () => {
    clearInterval(timer);
    paperLamp.set(false);
  };
  return followsDevice(track, stream, end).track;
}

import type { TrackKind } from '@nimble-bell/core/limits';
import { ownDevices, wanted, type Presents } from './ownDevices';
import { standInCamera, standInMicrophone } from './standInDevices';

/** A device's track; where there is no device, its stand-in. A refusal by the person is theirs and is passed on. */
export async function acquire(kind: TrackKind): Promise<MediaStreamTrack> {
  if (kind === 'screen') return presented();
  try {
    const stream = await navigator.mediaDevices.getUserMedia(wanted(kind));
    return kind === 'camera' ? await shown(stream) : stream.getTracks()[0]!;
  } catch (error) {
    if ((error as DOMException).name !== 'NotFoundError') throw error;
    return kind === 'sound' ? standInMicrophone() : standInCamera();
  }
}

/** A camera's picture as its owner wants it shown: what cannot be hidden is not shown. */
async function shown(stream: MediaStream): Promise<MediaStreamTrack> {
  const { behind, behindPicture } = ownDevices.get();
  const [track] = stream.getVideoTracks();
  if (behind === 'plain') return track!;
  try {
    return await (await import('./background/hide')).hide(stream, behind, behindPicture);
  } catch (error) {
    track!.stop();
    throw error;
  }
}

/** How often a screen is taken, a second: what moves is smooth, text is sharp. */
const FRAMES = { sharp: 12, moving: 30 };

/** What one presents, as one has chosen to. */
async function presented(): Promise<MediaStreamTrack> {
  const { presents } = ownDevices.get();
  if (presents === 'paper') return sharpened(await (await import('./paper')).paperTrack(), presents);
  const video = { frameRate: FRAMES[presents] };
  // What moves may sound: a tab, where whoever presents lets the browser share it.
  const stream = await navigator.mediaDevices.getDisplayMedia({ video, audio: presents === 'moving' });
  const track = stream.getTracks().find((t) => t.kind === 'video')!;
  const sound = stream.getTracks().find((t) => t.kind === 'audio');
  if (sound) beside.set(track, sound);
  return sharpened(track, presents);
}

/** The sound that came with what is presented. */
const beside = new WeakMap<MediaStreamTrack, MediaStreamTrack>();
export const soundWith = (presented: MediaStreamTrack | undefined) => presented && beside.get(presented);

/** Says what is in a picture (W3C mst-content-hint): where the line is narrow, text keeps its sharpness and a film its motion. */
export function sharpened(track: MediaStreamTrack, presents: Presents): MediaStreamTrack {
  track.contentHint = presents === 'moving' ? 'motion' : 'text';
  if (presents !== 'paper') void track.applyConstraints?.({ frameRate: FRAMES[presents] }).catch(() => {});
  return track;
}

/** Waits until the local description holds its candidates: the relay takes whole offers. */
export function gathered(pc: RTCPeerConnection): Promise<void> {
  if (pc.iceGatheringState === 'complete') return Promise.resolve();
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, 1500);
    pc.addEventListener('icegatheringstatechange', () => {
      if (pc.iceGatheringState !== 'complete') return;
      clearTimeout(timer);
      resolve();
    });
  });
}

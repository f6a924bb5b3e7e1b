import type { TrackKind } from '@nimble-bell/core/limits';
import { wanted } from './ownDevices';
import { standInCamera, standInMicrophone } from './standInDevices';

/** A device's track; where there is no device, its stand-in. A refusal by the person is theirs and is passed on. */
export async function acquire(kind: TrackKind): Promise<MediaStreamTrack> {
  try {
    const stream =
      kind === 'screen'
        ? await navigator.mediaDevices.getDisplayMedia({ video: { frameRate: 12 }, audio: false })
        : await navigator.mediaDevices.getUserMedia(wanted(kind));
    return stream.getTracks()[0]!;
  } catch (error) {
    if ((error as DOMException).name !== 'NotFoundError' || kind === 'screen') throw error;
    return kind === 'sound' ? standInMicrophone() : standInCamera();
  }
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

/**
 * Makes a track that is drawn from a device end with it, and the device with the track; `end` ends the drawing. Once the
 * device is gone the track says so as a device does.
 */
export function followsDevice(
  track: MediaStreamTrack,
  device: MediaStream,
  end: () => void,
): { track: MediaStreamTrack; gone: () => void } {
  const stop = track.stop.bind(track);
  let over = false;
  const letGo = () => {
    if (over) return;
    over = true;
    end();
    for (const own of device.getTracks()) own.stop();
    stop();
  };
  track.stop = letGo;
  const gone = () => {
    if (over) return;
    letGo();
    track.dispatchEvent(new Event('ended'));
  };
  device.getVideoTracks()[0]!.addEventListener('ended', gone);
  return { track, gone };
}

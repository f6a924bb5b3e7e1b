/** Several sounds as one track; stopped, it lets them go on by themselves. */
export function mixed(...sounds: MediaStreamTrack[]): MediaStreamTrack {
  const audio = new AudioContext();
  const out = audio.createMediaStreamDestination();
  for (const sound of sounds) audio.createMediaStreamSource(new MediaStream([sound])).connect(out);
  const track = out.stream.getAudioTracks()[0]!;
  const stop = track.stop.bind(track);
  track.stop = () => {
    void audio.close();
    stop();
  };
  return track;
}

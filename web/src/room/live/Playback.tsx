import { useEffect, useRef, useSyncExternalStore, type RefObject } from 'react';
import { speaksBy } from '@nimble-bell/core/room';
import { ownDevices } from './ownDevices';
import { useInside, useRoom, type Inside } from './useRoom';

/** Plays one track in a media element for as long as both are there. */
function useTrack<E extends HTMLMediaElement>(track: MediaStreamTrack): RefObject<E | null> {
  const element = useRef<E>(null);
  useEffect(() => {
    const media = element.current;
    if (!media) return;
    media.srcObject = new MediaStream([track]);
    void media.play().catch(() => {});
    return () => {
      media.srcObject = null;
    };
  }, [track]);
  return element;
}

/** A picture track, shown. */
export function Picture(props: { track: MediaStreamTrack; className?: string | undefined; label?: string }) {
  const video = useTrack<HTMLVideoElement>(props.track);
  return (
    <video ref={video} className={props.className} muted playsInline autoPlay aria-label={props.label} />
  );
}

function Voice({ track }: { track: MediaStreamTrack }) {
  const audio = useTrack<HTMLAudioElement>(track);
  const speaker = ownDevices.useOf((d) => d.speaker);
  useEffect(() => {
    // Not every browser lets one choose; and one that is unplugged is none.
    void audio.current?.setSinkId?.(speaker).catch(() => {});
  }, [audio, speaker]);
  return <audio ref={audio} autoPlay />;
}

const ownTelephone = ({ room, info }: Inside) => speaksBy(room, info.me.member) === 'telephone';

/** Everyone's sound, heard and not seen. */
export function Voices() {
  const { call } = useRoom();
  const byTelephone = useInside(ownTelephone);
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  // Whoever has called in hears the class there: twice is an echo.
  if (byTelephone) return null;
  return tracks.filter((t) => t.kind === 'sound').map((t) => <Voice key={t.member} track={t.track} />);
}

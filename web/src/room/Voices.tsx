import { useEffect, useRef, useSyncExternalStore } from 'react';
import { useRoom } from './useRoom';

/** Everyone's sound, heard and not seen. */
export function Voices() {
  const { call } = useRoom();
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  return tracks.filter((t) => t.kind === 'sound').map((t) => <Voice key={t.member} track={t.track} />);
}

function Voice({ track }: { track: MediaStreamTrack }) {
  const audio = useRef<HTMLAudioElement>(null);
  useEffect(() => {
    const element = audio.current;
    if (!element) return;
    element.srcObject = new MediaStream([track]);
    void element.play().catch(() => {});
    return () => {
      element.srcObject = null;
    };
  }, [track]);
  return <audio ref={audio} autoPlay />;
}

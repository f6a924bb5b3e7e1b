import { useMemo, useRef, type RefObject } from 'react';

/** What one does with the film; times in ms. Its sound leads: whatever is seen follows it. */
export interface Film {
  now: () => number;
  paused: () => boolean;
  /** How fast it plays; 1 is as it was spoken. */
  pace: () => number;
  seek: (ms: number) => void;
  /** Plays where it stands, and stands where it plays. */
  toggle: () => void;
  play: () => void;
  speed: (times: number) => void;
  /** Nothing is heard, however loud it is; or it is heard again. */
  hush: (silent: boolean) => void;
  /** 0 to 1 */
  volume: (share: number) => void;
}

/** The film of a page: its element, and what is done with it. */
export function useMedia(): { element: RefObject<HTMLAudioElement | null>; film: Film } {
  const element = useRef<HTMLAudioElement>(null);
  // Before a film is known there is nowhere to go in it: where one is to be, ms, the latest of what was said.
  const goesTo = useRef<number | null>(null);
  const film = useMemo(
    (): Film => ({
      now: () => goesTo.current ?? (element.current?.currentTime ?? 0) * 1000,
      paused: () => element.current?.paused ?? true,
      pace: () => element.current?.playbackRate ?? 1,
      seek: (ms) => {
        const sound = element.current;
        if (!sound) return;
        const go = () => {
          if (goesTo.current === null) return;
          sound.currentTime = Math.max(0, goesTo.current) / 1000;
          goesTo.current = null;
        };
        const waits = goesTo.current !== null;
        goesTo.current = ms;
        if (sound.readyState >= HTMLMediaElement.HAVE_METADATA) go();
        else if (!waits) sound.addEventListener('loadedmetadata', go, { once: true });
      },
      toggle: () => {
        const sound = element.current;
        if (sound) void (sound.paused ? sound.play() : sound.pause());
      },
      play: () => void element.current?.play(),
      speed: (times) => {
        if (element.current) element.current.playbackRate = times;
      },
      hush: (silent) => {
        if (element.current) element.current.muted = silent;
      },
      volume: (share) => {
        if (element.current) element.current.volume = share;
      },
    }),
    [],
  );
  return { element, film };
}

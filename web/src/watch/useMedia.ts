import { useMemo, useRef, type RefObject } from 'react';

/** What one does with the film; times in ms. */
export interface Film {
  now: () => number;
  paused: () => boolean;
  seek: (ms: number) => void;
  /** Plays where it stands, and stands where it plays. */
  toggle: () => void;
  play: () => void;
  speed: (times: number) => void;
}

/** The film of a page: its element, and what is done with it. */
export function useMedia(): { element: RefObject<HTMLVideoElement | null>; film: Film } {
  const element = useRef<HTMLVideoElement>(null);
  const film = useMemo(
    (): Film => ({
      now: () => (element.current?.currentTime ?? 0) * 1000,
      paused: () => element.current?.paused ?? true,
      seek: (ms) => {
        const video = element.current;
        if (!video) return;
        const go = () => {
          video.currentTime = Math.max(0, ms) / 1000;
        };
        // Before a film is known there is nowhere to go in it.
        if (video.readyState >= HTMLMediaElement.HAVE_METADATA) go();
        else video.addEventListener('loadedmetadata', go, { once: true });
      },
      toggle: () => {
        const video = element.current;
        if (video) void (video.paused ? video.play() : video.pause());
      },
      play: () => void element.current?.play(),
      speed: (times) => {
        if (element.current) element.current.playbackRate = times;
      },
    }),
    [],
  );
  return { element, film };
}

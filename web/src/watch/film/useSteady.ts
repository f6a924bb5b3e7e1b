import { useEffect, useRef, useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../../app/api';
import type { Film } from './useMedia';

/** New paths are asked for so often, so long apart, ms. */
const TRIES = 5;
const AGAIN_MS = 1000;

/** What is played, by its paths. */
type Played = Pick<RecordingDetail, 'id' | 'mediaPath' | 'pictures'>;

/**
 * The paths that a page plays of. They carry a ticket, another with each answer of the server: what plays keeps its own
 * until that fails. Then it is asked for anew (at `path`), and goes on where it was.
 */
export function useSteady(
  recording: Played,
  film: Film,
  path: string,
): { played: Played; failed: () => void } {
  const ask = useAsk();
  const [played, setPlayed] = useState<Played>(recording);
  if (played.id !== recording.id) setPlayed(recording);
  const goesOn = useRef<{ at: number; playing: boolean } | null>(null);
  // Once the new sound is there, and not before: the old one is not to be moved.
  useEffect(() => {
    const on = goesOn.current;
    goesOn.current = null;
    if (!on) return;
    film.seek(on.at);
    if (on.playing) film.play();
  }, [played.mediaPath, film]);
  const asking = useRef(false);
  const failed = async () => {
    // Sound and pictures fail together: they are asked for once.
    if (asking.current) return;
    asking.current = true;
    let fresh: RecordingDetail | null = null;
    for (let i = 0; i < TRIES && !fresh; i++) {
      if (i > 0) await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
      fresh = await ask<RecordingDetail>(path).catch(() => null);
    }
    asking.current = false;
    if (!fresh || fresh.mediaPath === played.mediaPath) return;
    // Where one went meanwhile counts.
    goesOn.current = { at: film.now(), playing: !film.paused() };
    setPlayed(fresh);
  };
  return { played, failed: () => void failed() };
}

import { useEffect, useRef, useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../../app/api';
import type { Film } from './useMedia';

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
  const failed = async () => {
    const was = { at: film.now(), playing: !film.paused() };
    const fresh = await ask<RecordingDetail>(path).catch(() => null);
    if (!fresh || fresh.mediaPath === played.mediaPath) return;
    goesOn.current = was;
    setPlayed(fresh);
  };
  return { played, failed: () => void failed() };
}

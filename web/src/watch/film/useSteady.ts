import { useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../../app/api';
import type { Film } from './useMedia';

/** What is played, by its paths. */
type Played = Pick<RecordingDetail, 'id' | 'mediaPath' | 'pictures'>;

/**
 * The paths that a page plays of. They carry a ticket, another with each answer of the server: what plays keeps its own
 * until that fails. Then it is asked for anew, and goes on where it was.
 */
export function useSteady(
  recording: Played,
  film: Film,
  path: string,
): { played: Played; failed: () => void } {
  const ask = useAsk();
  const [played, setPlayed] = useState<Played>(recording);
  if (played.id !== recording.id) setPlayed(recording);
  const failed = async () => {
    const [at, playing] = [film.now(), !film.paused()];
    const fresh = await ask<RecordingDetail>(path).catch(() => null);
    if (!fresh || fresh.mediaPath === played.mediaPath) return;
    setPlayed(fresh);
    film.seek(at);
    if (playing) film.play();
  };
  return { played, failed: () => void failed() };
}

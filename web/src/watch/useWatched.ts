import { useCallback, useEffect, useRef, useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { STRETCH_MS } from '@nimble-bell/core/watching';
import { useAsk } from '../app/api';
import type { Film } from './film/useMedia';

/** What was watched is said this often, ms. */
const SAID_MS = 15_000;
/** Who was so near its beginning or its end begins at the beginning. */
const NEAR_MS = 10_000;

/** Keeps where one is, and which stretches one watched; one goes on where one was, on any device. */
export function useWatched(
  { id, resume, lengthMs, shared }: Pick<RecordingDetail, 'id' | 'resume' | 'lengthMs' | 'shared'>,
  film: Film,
  /** A moment that was asked for, ms. */
  asked: number | null,
) {
  const ask = useAsk();
  // Where one begins: what was asked for, or else where one was; later answers of the server move nobody.
  const [from] = useState(() => ({
    asked,
    was: resume < NEAR_MS || resume > lengthMs - NEAR_MS ? null : resume,
  }));
  const begin = from.asked ?? from.was;
  useEffect(() => {
    if (begin !== null) film.seek(begin);
  }, [film, begin]);
  const last = useRef(-1);
  const unsaid = useRef<number[]>([]);
  const say = useCallback(() => {
    // Of whoever is nobody here nothing is kept.
    if (shared || !unsaid.current.length) return;
    const stretches = unsaid.current.splice(0);
    // What is not taken is said again with the next.
    ask(`/recordings/${id}/watched`, 'PUT', { position: film.now(), stretches }).catch(() =>
      unsaid.current.unshift(...stretches),
    );
  }, [ask, id, film, shared]);
  useEffect(() => {
    const timer = setInterval(say, SAID_MS);
    const hidden = () => document.visibilityState === 'hidden' && say();
    document.addEventListener('visibilitychange', hidden);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', hidden);
      say();
    };
  }, [say]);
  const played = useCallback(
    (ms: number) => {
      if (film.paused()) return;
      const stretch = Math.floor(ms / STRETCH_MS);
      if (stretch === last.current) return;
      last.current = stretch;
      unsaid.current.push(stretch);
    },
    [film],
  );
  return { played, say, resumed: from.asked === null ? from.was : null };
}

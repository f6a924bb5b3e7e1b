import { useEffect, useRef, useState } from 'react';
import { nameFrom, useRoom } from '../../live/useRoom';
import type { Point } from './useHand';

/** Somebody's pen on the same board, in fractions of it. */
export interface OtherPen {
  member: string;
  name: string;
  x: number;
  y: number;
}

/** One's own pen is told so often at most, ms; another's is seen for so long after its last word. */
const TELL_MS = 120;
const SEEN_MS = 1500;

/** Whose pens are on the board that is shared, and telling where one's own is. */
export function usePens(shared: boolean): { others: readonly OtherPen[]; tell: (at: Point) => void } {
  const { connection } = useRoom();
  const [others, setOthers] = useState<readonly (OtherPen & { until: number })[]>([]);
  const told = useRef(0);
  useEffect(() => {
    if (!shared) return;
    const rest = () => setOthers((all) => all.filter((p) => p.until > Date.now()));
    const timer = setInterval(rest, SEEN_MS / 2);
    const stop = connection.onSignal((signal) => {
      if (signal.what !== 'pointer' || signal.on !== 'board') return;
      const { state, info } = connection.view;
      if (!state || !info) return;
      const { member, x, y } = signal;
      const pen = {
        member,
        x,
        y,
        name: nameFrom({ room: state, info }, member),
        until: Date.now() + SEEN_MS,
      };
      setOthers((all) => [...all.filter((p) => p.member !== member), pen]);
    });
    return () => {
      clearInterval(timer);
      stop();
    };
  }, [connection, shared]);
  const tell = ([x, y]: Point) => {
    if (!shared || Date.now() - told.current < TELL_MS) return;
    told.current = Date.now();
    connection.signal({ what: 'pointer', on: 'board', x, y });
  };
  return { others, tell };
}

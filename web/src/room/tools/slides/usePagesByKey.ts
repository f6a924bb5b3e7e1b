import { useEffect, useRef, type KeyboardEvent } from 'react';
import type { Frame } from '@nimble-bell/core/room';
import { isTaken } from '../../../keys/keys';

interface Turned {
  frame: Frame;
  turnBy: (by: number) => void;
  give: (more: Partial<Frame>) => void;
}

/** By so much of a page it is moved. */
const STEP = 0.15;
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};
const within = (n: number) => Math.min(1, Math.max(0, n));

/**
 * Pages turned by the keys that a hand-held turner sends, wherever one is; and on the page itself by arrows, which move
 * it where it is enlarged.
 */
export function usePagesByKey({ frame, turnBy, give }: Turned) {
  const now = useRef(turnBy);
  useEffect(() => {
    now.current = turnBy;
  });
  useEffect(() => {
    const press = (e: globalThis.KeyboardEvent) => {
      if (isTaken(e) || (e.key !== 'PageDown' && e.key !== 'PageUp')) return;
      e.preventDefault();
      now.current(e.key === 'PageDown' ? 1 : -1);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  const large = frame.zoom > 1 || frame.fit === 'width';
  return {
    onKeyDown: (e: KeyboardEvent) => {
      const move = MOVES[e.key];
      if (!move || e.ctrlKey || e.metaKey || e.altKey) return;
      e.preventDefault();
      if (large) give({ x: within(frame.x + move[0]), y: within(frame.y + move[1]) });
      else turnBy(Math.sign(move[0] + move[1]));
    },
  };
}

import { useRef, type PointerEvent, type RefObject } from 'react';
import { pinched, pointUnder, type At, type Held, type Lying } from './pinched';

/** Two fingers hold what is drawn: they move it and come nearer, where one finger draws. */
export interface Fingers {
  /** Whether it is another finger beside one that is down: it draws nothing. */
  down: (e: PointerEvent) => boolean;
  /** Whether it moved what is seen, and nothing else. */
  move: (e: PointerEvent) => boolean;
  up: (e: PointerEvent) => void;
}

interface Of {
  pane: RefObject<HTMLDivElement | null>;
  /** How it lies, and how large its window is, px. */
  seen: () => { lying: Lying; size: At };
  /** It is held so, and shown so. */
  stretch: (as: Lying) => void;
  /** It is let go of, lying so. */
  settle: (as: Lying) => void;
}

/** Fingers that lie side by side are so far apart at least, px. */
const LEAST_APART = 20;

export function useFingers({ pane, seen, stretch, settle }: Of): Fingers {
  const down = useRef(new Map<number, At>());
  const held = useRef<{ from: Held; by: Lying } | null>(null);
  /** Where the first two are between them in the pane, and how far apart. */
  const between = () => {
    const [a, b] = [...down.current.values()] as [At, At];
    const { left, top } = pane.current!.getBoundingClientRect();
    const at: At = [(a[0] + b[0]) / 2 - left, (a[1] + b[1]) / 2 - top];
    return { at, apart: Math.max(LEAST_APART, Math.hypot(a[0] - b[0], a[1] - b[1])) };
  };
  return {
    down: (e) => {
      if (e.pointerType === 'touch') down.current.set(e.pointerId, [e.clientX, e.clientY]);
      if (down.current.size === 2) {
        const { lying, size } = seen();
        const { at, apart } = between();
        held.current = { from: { of: pointUnder(lying, size, at), near: lying.near, apart }, by: lying };
      }
      return down.current.size > 1;
    },
    move: (e) => {
      if (down.current.has(e.pointerId)) down.current.set(e.pointerId, [e.clientX, e.clientY]);
      if (!held.current) return false;
      const { at, apart } = between();
      held.current.by = pinched(held.current.from, seen().size, at, apart);
      stretch(held.current.by);
      return true;
    },
    up: (e) => {
      down.current.delete(e.pointerId);
      if (held.current) settle(held.current.by);
      held.current = null;
    },
  };
}

import { useRef, type PointerEvent, type RefObject } from 'react';

type At = [x: number, y: number];

/** Two fingers move about on what one has come closer to, where one finger draws. */
export function useFingers(around: RefObject<HTMLElement | null>) {
  const down = useRef(new Map<number, At>());
  return {
    /** Whether it is another finger beside one that is down: it draws nothing. */
    down: (e: PointerEvent): boolean => {
      if (e.pointerType === 'touch') down.current.set(e.pointerId, [e.clientX, e.clientY]);
      return down.current.size > 1;
    },
    /** Whether it moved what is seen, and nothing else. */
    move: (e: PointerEvent): boolean => {
      const was = down.current.get(e.pointerId);
      if (!was || down.current.size < 2) return false;
      // Each of them by its share, so that both together move it as far as they go.
      const share = 1 / down.current.size;
      around.current?.scrollBy((was[0] - e.clientX) * share, (was[1] - e.clientY) * share);
      down.current.set(e.pointerId, [e.clientX, e.clientY]);
      return true;
    },
    up: (e: PointerEvent) => void down.current.delete(e.pointerId),
  };
}

import { useEffect, useRef, type RefObject } from 'react';

/**
 * Tells of an element that has failed before the page stood: its event found nobody then. Later ones come by `onError`.
 */
export function useFailed(element: RefObject<HTMLMediaElement | null>, failed: () => void): void {
  const first = useRef(failed);
  useEffect(() => {
    if (element.current?.error) first.current();
  }, [element]);
}

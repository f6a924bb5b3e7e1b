import { startTransition, useEffect, useState } from 'react';

/**
 * Whether the page has been painted once: what is further down is drawn after what one came for. With `before`, whether it
 * has been since that is.
 */
export function usePainted(before = true): boolean {
  const [painted, setPainted] = useState(false);
  useEffect(() => {
    if (!before) return;
    const frame = requestAnimationFrame(() => startTransition(() => setPainted(true)));
    return () => cancelAnimationFrame(frame);
  }, [before]);
  return painted;
}

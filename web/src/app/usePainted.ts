import { startTransition, useEffect, useState } from 'react';

/** Whether the page has been painted once: what is further down is drawn after what one came for. */
export function usePainted(): boolean {
  const [painted, setPainted] = useState(false);
  useEffect(() => {
    const frame = requestAnimationFrame(() => startTransition(() => setPainted(true)));
    return () => cancelAnimationFrame(frame);
  }, []);
  return painted;
}

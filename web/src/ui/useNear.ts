import { useEffect, useRef, useState } from 'react';

/** So much beyond the window counts as near. */
const MARGIN = '600px';

/** Whether an element is in the window or near it, or has been: what is far away is drawn when one comes to it. */
export function useNear<E extends Element>() {
  const ref = useRef<E>(null);
  const [near, setNear] = useState(() => typeof IntersectionObserver === 'undefined');
  useEffect(() => {
    if (near || !ref.current) return;
    const observer = new IntersectionObserver((seen) => seen.some((e) => e.isIntersecting) && setNear(true), {
      rootMargin: MARGIN,
    });
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, [near]);
  return { ref, near };
}

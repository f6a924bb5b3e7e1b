import { useRef, useState, useEffect, useCallback } from 'react';
import { focusOn, pageHeading } from '../app/useHeadingFocus';

/**
 * The way back of focus: what opened something has it again when that is closed, or, where it is gone, the page's
 * heading. Gives the ref for what opens, and what closes.
 */
export function useReturn() {
  const ref = useRef<HTMLButtonElement>(null);
  const [closed, setClosed] = useState(0);
  useEffect(() => {
    if (closed > 0) focusOn(ref.current ?? pageHeading());
  }, [closed]);
  const after = useCallback((close: () => void) => {
    close();
    setClosed((n) => n + 1);
  }, []);
  return [ref, after] as const;
}

import { useEffect, useRef } from 'react';
import { isTaken } from '../../keys/keys';

/** Whatever has focus and does something at the space bar itself. */
const OWN = 'button, a, summary, select, input, [tabindex="0"], [role=radio], [role=option]';

/** While the space bar is held the microphone is on, where it was off: it is let go of, and off again. */
export function useHeldToSpeak(on: boolean, turn: (on: boolean) => void) {
  const now = useRef({ on, turn });
  const held = useRef(false);
  useEffect(() => {
    now.current = { on, turn };
  });
  useEffect(() => {
    const begin = (e: KeyboardEvent) => {
      if (e.key !== ' ' || isTaken(e)) return;
      if (e.target instanceof Element && e.target.closest(OWN)) return;
      e.preventDefault();
      if (e.repeat || now.current.on) return;
      held.current = true;
      now.current.turn(true);
    };
    const end = () => {
      if (!held.current) return;
      held.current = false;
      now.current.turn(false);
    };
    const up = (e: KeyboardEvent) => e.key === ' ' && end();
    window.addEventListener('keydown', begin);
    window.addEventListener('keyup', up);
    // Whoever looks elsewhere while holding it is not heard there.
    window.addEventListener('blur', end);
    return () => {
      window.removeEventListener('keydown', begin);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', end);
    };
  }, []);
}

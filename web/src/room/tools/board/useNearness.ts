import { useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { pinched, pointUnder, type At, type Lying } from './pinched';
import { useFingers, type Fingers } from './useFingers';

/** How near one is to a board, for one's own eyes. */
export interface Nearness {
  near: number;
  /** Comes as near, the middle of what one sees staying where it is. */
  to: (near: number) => void;
  /** The window in which the sheet lies, and the sheet. */
  pane: RefObject<HTMLDivElement | null>;
  sheet: RefObject<HTMLDivElement | null>;
  fingers: Fingers;
}

export function useNearness(): Nearness {
  const pane = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(1);
  /** How the sheet is to lie once it is as large. */
  const then = useRef<Lying | null>(null);

  const seen = (): { lying: Lying; size: At } => {
    const { scrollLeft, scrollTop, clientWidth, clientHeight } = pane.current!;
    return { lying: { near, left: -scrollLeft, top: -scrollTop }, size: [clientWidth, clientHeight] };
  };
  // Nothing is drawn again for what is held: it is moved and stretched.
  const stretch = (as: Lying) => {
    const { lying } = seen();
    sheet.current!.style.transform = `translate(${as.left - lying.left}px, ${as.top - lying.top}px) scale(${as.near / near})`;
  };
  const settle = (as: Lying) => {
    then.current = as;
    if (as.near === near) lie(pane.current!, sheet.current!, then);
    else setNear(as.near);
  };
  // Before anything of it is seen.
  useLayoutEffect(() => {
    if (pane.current && sheet.current) lie(pane.current, sheet.current, then);
  }, [near]);
  const to = (wanted: number) => {
    const { lying, size } = seen();
    const middle: At = [size[0] / 2, size[1] / 2];
    settle(pinched({ of: pointUnder(lying, size, middle), near: wanted, apart: 1 }, size, middle, 1));
  };
  return { near, to, pane, sheet, fingers: useFingers({ pane, seen, stretch, settle }) };
}

/** The sheet lies in its window as it is to. */
function lie(pane: HTMLDivElement, sheet: HTMLDivElement, then: RefObject<Lying | null>) {
  if (!then.current) return;
  sheet.style.transform = '';
  pane.scrollLeft = -then.current.left;
  pane.scrollTop = -then.current.top;
  then.current = null;
}

import { useEffect, useRef } from 'react';
import type { RoomState } from '@nimble-bell/core/room';
import { told } from '../../app/told';
import { ring } from '../heard/ring';

/** Hands that go up within this ring once, ms. */
const TOGETHER_MS = 3000;
const AT = 'hand-bell';

/** Whether a hand that goes up rings, for whoever teaches on this device. */
export const handBell = told(localStorage.getItem(AT) !== 'off');

export function ringHands(on: boolean) {
  handBell.set(on);
  localStorage.setItem(AT, on ? 'on' : 'off');
}

/** Rings when a hand goes up: once for many together, and never for hands that were up before one came. */
export function useHandBell(hands: RoomState['floor']['hands']): void {
  const on = handBell.use();
  const known = useRef<ReadonlySet<string>>(new Set(hands.map((h) => h.member)));
  const rang = useRef(-Infinity);
  useEffect(() => {
    const before = known.current;
    known.current = new Set(hands.map((h) => h.member));
    const up = hands.some((h) => !before.has(h.member));
    if (!up || !on || performance.now() - rang.current < TOGETHER_MS) return;
    rang.current = performance.now();
    ring('hand');
  }, [hands, on]);
}

import { useState } from 'react';
import { VIEWS, type View } from './seen';

export const SPEEDS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.5, 3] as const;
export const SIZES = ['plain', 'large', 'largest'] as const;
/** Where captions stand: beside the picture, never over it. */
export const PLACES = ['below', 'above'] as const;

/** How somebody watches, kept in their browser from one recording to the next. */
export interface Kept {
  /** Times as fast as it was spoken. */
  speed: number;
  view: View;
  /** Language of the captions that are shown; none where it is empty. */
  captions: string;
  size: (typeof SIZES)[number];
  place: (typeof PLACES)[number];
  silences: boolean;
  /** 0 to 1 */
  volume: number;
}

const PLACE = 'watching';

function stored(): Partial<Record<keyof Kept, unknown>> {
  try {
    return Object(JSON.parse(localStorage.getItem(PLACE) ?? '{}'));
  } catch {
    return {};
  }
}

/** What is stored, as far as it is something one can choose. */
function read(): Kept {
  const { speed, view, captions, size, place, silences, volume } = stored();
  const one = <T>(all: readonly T[], found: unknown, otherwise: T): T =>
    all.find((v) => v === found) ?? otherwise;
  return {
    speed: one<number>(SPEEDS, speed, 1),
    view: one(VIEWS, view, 'screen'),
    captions: typeof captions === 'string' ? captions.slice(0, 35) : '',
    size: one(SIZES, size, 'plain'),
    place: one(PLACES, place, 'below'),
    silences: silences === true,
    volume: typeof volume === 'number' && volume >= 0 && volume <= 1 ? volume : 1,
  };
}

export type Keep = (change: Partial<Kept> | ((kept: Kept) => Partial<Kept>)) => void;

export function useKept(): [Kept, Keep] {
  const [kept, setKept] = useState(read);
  const keep: Keep = (change) =>
    setKept((before) => {
      const next = { ...before, ...(typeof change === 'function' ? change(before) : change) };
      localStorage.setItem(PLACE, JSON.stringify(next));
      return next;
    });
  return [kept, keep];
}

import { useSyncExternalStore } from 'react';

export const SIZES = ['plain', 'large', 'largest'] as const;
export const GROUNDS = ['paper', 'dark'] as const;

/** How one reads captions in class, kept in this browser. */
export interface KeptCaptions {
  shown: boolean;
  size: (typeof SIZES)[number];
  place: 'below' | 'above';
  ground: (typeof GROUNDS)[number];
}

const AT = 'captions';
const USUAL: KeptCaptions = { shown: true, size: 'plain', place: 'below', ground: 'dark' };

function stored(): KeptCaptions {
  try {
    const found = Object(JSON.parse(localStorage.getItem(AT) ?? '{}')) as Partial<KeptCaptions>;
    return {
      shown: found.shown !== false,
      size: SIZES.find((s) => s === found.size) ?? USUAL.size,
      place: found.place === 'above' ? 'above' : 'below',
      ground: GROUNDS.find((g) => g === found.ground) ?? USUAL.ground,
    };
  } catch {
    return USUAL;
  }
}

let now = stored();
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export function keepCaptions(change: Partial<KeptCaptions>) {
  now = { ...now, ...change };
  localStorage.setItem(AT, JSON.stringify(now));
  for (const listener of listeners) listener();
}

export const useKeptCaptions = () => useSyncExternalStore(subscribe, () => now);

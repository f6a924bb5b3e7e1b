import { useSyncExternalStore } from 'react';

/** A value outside of pages that tells those who show it when it is another, as `same` has it. */
export function told<T>(first: T, same: (a: T, b: T) => boolean = Object.is) {
  let value = first;
  const listeners = new Set<() => void>();
  const subscribe = (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  };
  const get = () => value;
  return {
    get,
    set: (next: T) => {
      if (same(next, value)) return;
      value = next;
      listeners.forEach((listener) => listener());
    },
    use: () => useSyncExternalStore(subscribe, get),
    /** What follows from it alone: who shows that is told of nothing else. */
    useOf: <P extends string | number | boolean>(of: (value: T) => P) =>
      useSyncExternalStore(subscribe, () => of(value)),
  };
}

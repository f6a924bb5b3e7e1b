import { useEffect, useState } from 'react';

let offset = 0;
const listeners = new Set<() => void>();

/** Sets the pages' clock by the server's. */
export const setServerTime = (now: number) => {
  offset = now - Date.now();
  for (const listener of listeners) listener();
};

export const serverNow = () => Date.now() + offset;

/** The time in force, told again every `every` ms. */
export function useNow(every = 1000): number {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const look = () => setNow(serverNow());
    const timer = setInterval(look, every);
    listeners.add(look);
    return () => {
      clearInterval(timer);
      listeners.delete(look);
    };
  }, [every]);
  return now;
}

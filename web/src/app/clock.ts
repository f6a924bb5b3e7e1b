import { useEffect, useState } from 'react';

let offset = 0;

/** Sets the pages' clock by the server's. */
export const setServerTime = (now: number) => {
  offset = now - Date.now();
};

export const serverNow = () => Date.now() + offset;

/** The time in force, told again every `every` ms. */
export function useNow(every = 1000): number {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(serverNow()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}

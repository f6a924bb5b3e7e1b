import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { request, useAsk } from '../app/api';

export interface Kept<T> {
  body: T;
  at: number;
}

const PAUSE_MS = 600;
const pathOf = (key: string) => `/drafts?key=${encodeURIComponent(key)}`;

/** What was kept of a form that was left: `undefined` while it is asked for, null where there is nothing. */
export function useKept<T>(key: string): Kept<T> | null | undefined {
  const ask = useAsk();
  const path = pathOf(key);
  const { data, error } = useQuery({
    queryKey: [path],
    queryFn: () => ask<{ draft: Kept<T> | null }>(path),
    gcTime: 0,
    staleTime: Infinity,
  });
  return error ? null : data?.draft;
}

/**
 * Keeps what is being typed on the server until it is saved or thrown away; null is nothing worth keeping. Gives the
 * way to forget it.
 */
export function useKeeping<T extends object>(key: string, values: T | null) {
  const ask = useAsk();
  const path = pathOf(key);
  const pending = useRef<T | null>(null);
  const over = useRef(false);
  /** What is on its way to be kept: whoever forgets it waits for it. */
  const sending = useRef<Promise<unknown>>(Promise.resolve());

  useEffect(() => {
    if (!values) return;
    // What is typed after a save is worth keeping again.
    over.current = false;
    pending.current = values;
    const timer = setTimeout(() => {
      if (over.current) return;
      pending.current = null;
      sending.current = ask(path, 'PUT', { body: values }).catch(() => {});
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [values, ask, path]);

  // Whoever leaves the page within the pause has it kept all the same.
  useEffect(() => {
    const flush = () => {
      if (!pending.current || over.current) return;
      void request(path, null, 'PUT', { body: pending.current }, { keepalive: true }).catch(() => {});
      pending.current = null;
    };
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [path]);

  /** Saved or thrown away: nothing is kept any more. */
  return async () => {
    over.current = true;
    pending.current = null;
    await sending.current;
    await ask(path, 'DELETE').catch(() => {});
  };
}

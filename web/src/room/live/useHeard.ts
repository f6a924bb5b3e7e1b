import { useSyncExternalStore } from 'react';
import { useRoom } from './useRoom';

/** All who are heard. */
export function useHeard(): ReadonlyMap<string, number> {
  const { voices } = useRoom().connection;
  return useSyncExternalStore(voices.subscribe, () => voices.now);
}

import { noPreferences, type Preferences } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange, useMe } from '../app/queries';

/** A person's own ways, and the way to keep others. */
export function useWays() {
  const me = useMe();
  const ask = useAsk();
  const ways = me.data?.preferences ?? noPreferences();
  const keep = useChange(
    (next: Preferences) => ask('/me/preferences', 'PUT', next),
    () => 'Kept.',
  );
  return {
    ways,
    keep: (more: Partial<Preferences>) => keep.mutate({ ...ways, ...more }),
    busy: keep.isPending,
  };
}

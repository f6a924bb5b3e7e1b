import { useQueryClient } from '@tanstack/react-query';
import { noPreferences, type Me, type Preferences } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange, useMe } from '../app/queries';

/** A person's own ways, and the way to keep others: in force on this page at once, so that two presses are two changes. */
export function useWays() {
  const me = useMe();
  const ask = useAsk();
  const client = useQueryClient();
  const ways = me.data?.preferences ?? noPreferences();
  const save = useChange(
    (next: Preferences) => ask('/me/preferences', 'PUT', next),
    () => 'Kept.',
  );
  const keep = (change: (ways: Preferences) => Partial<Preferences>) => {
    const known = client.getQueryData<Me>(['/me']);
    if (!known) return;
    const preferences = { ...known.preferences, ...change(known.preferences) };
    client.setQueryData<Me>(['/me'], { ...known, preferences });
    save.mutate(preferences);
  };
  return { ways, keep };
}

import { Switch } from '@mantine/core';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';

/** Whether the college's public page names a series or a session; the link stays with those invited. */
export function ListedSwitch({ path, listed }: { path: string; listed: boolean }) {
  const ask = useAsk();
  const change = useChange((on: boolean) => ask(`${path}/listed`, 'PUT', { listed: on }));
  return (
    <Switch
      label="Listed on the college's public page, without a way in"
      checked={listed}
      disabled={change.isPending}
      onChange={(e) => change.mutate(e.currentTarget.checked)}
    />
  );
}

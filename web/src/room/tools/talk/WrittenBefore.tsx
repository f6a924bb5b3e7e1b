import { Loader, Text } from '@mantine/core';
import type { SessionWritten } from '@nimble-bell/core/api';
import { stopOf, useAsked } from '../../../app/queries';
import { Fault } from '../../../ui/Fault';
import { WrittenList } from '../../../writing/WrittenList';
import { useInfo } from '../../live/useRoom';

/** What stands on the session's page, as this person may read it. */
export default function WrittenBefore() {
  const { session, me, zone } = useInfo();
  const asked = useAsked<SessionWritten>(`/sessions/${session.id}/written`);
  const stop = stopOf(asked);
  if (stop) return <Fault error={stop} />;
  if (!asked.data) return <Loader size="sm" aria-label="Looking for what was written" />;
  if (!asked.data.written.length) return <Text size="sm">Nothing was written before class.</Text>;
  return <WrittenList written={asked.data.written} me={me.member} zone={zone} />;
}

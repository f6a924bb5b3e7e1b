import { heardBy, keptOf, maskedFor, withheldIn, type Watcher } from '@nimble-bell/core/recording';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Db } from '../db/pool';
import { eventsOf } from '../room/store';
import type { RecordingRow } from './store';

/**
 * What happened in a session as its recording may tell it to this person: the one way to it for watching, searching and
 * taking along.
 */
export async function recordedEvents(
  db: Db,
  { sessionId, plan }: Pick<RecordingRow, 'sessionId' | 'plan'>,
  watcher: Watcher,
): Promise<StoredEvent[]> {
  const events = await eventsOf(db, sessionId);
  return heardBy(keptOf(maskedFor(events, withheldIn(events)), plan?.leavesOut ?? []), watcher);
}

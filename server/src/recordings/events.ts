import { maskedFor, withheldIn } from '@nimble-bell/core/recording';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Db } from '../db/pool';
import { eventsOf } from '../room/store';

/** What happened in a session as its recording may tell it: the one way to it for watching, searching and taking along. */
export async function recordedEvents(db: Db, session: string): Promise<StoredEvent[]> {
  const events = await eventsOf(db, session);
  return maskedFor(events, withheldIn(events));
}

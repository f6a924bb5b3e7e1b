import { afterRules, partsIn, picksIn } from '@nimble-bell/core/after';
import type { StoredEvent } from '@nimble-bell/core/room';
import { sessionById } from '../courses/store';
import type { Db } from '../db/pool';
import { keepAsked } from '../questions/store';
import { writeRoll } from '../sessions/roll';
import { keepPart, keepPicks } from './store';

/** What is written of a class when it is over: its roll, and what each took part where that is counted. */
export async function closeBooks(db: Db, id: string, events: readonly StoredEvent[]): Promise<void> {
  await writeRoll(db, id, events);
  for (const [member, times] of picksIn(events)) await keepPicks(db, id, member, times);
  for (const e of events) if (e.type === 'asked' && e.prepared) await keepAsked(db, id, e.prepared, e.at);
  const session = await sessionById(db, id);
  if (!session || !afterRules(session.layers).participation) return;
  for (const [member, part] of partsIn(events)) await keepPart(db, id, member, part);
}

import { teaches } from '../../roster/role';
import type { Actor, Audience } from './concern';
import { ruleOf } from './evolve';
import type { StoredEvent, StoredOf, EventType } from './messages';
import { CONCERNS } from './registry';
import type { RoomState } from './state';

/** Who an event is for, as its own rule says: no event is told to anybody by default. */
export const audienceOf = (event: StoredEvent, room: RoomState): Audience =>
  ruleOf(event).hears(event as StoredOf<EventType>, room);

/** The event as this viewer may have it, or null where it is not for them. */
export function audience(event: StoredEvent, viewer: Actor, room: RoomState): StoredEvent | null {
  const heard = audienceOf(event, room);
  return heard.to !== 'some' || teaches(viewer.role) || heard.members.includes(viewer.member) ? event : null;
}

/** The whole room as this viewer may have it: what a late page begins with. */
export function snapshotFor(room: RoomState, viewer: Actor): RoomState {
  const seen: Record<string, unknown> = { ...room };
  for (const { name, seenBy } of CONCERNS) if (seenBy) seen[name] = seenBy(room[name], viewer);
  return seen as unknown as RoomState;
}

import { teaches } from '../../roster/role';
import { isTold, sees } from '../sight';
import type { Actor, Audience } from './concern';
import { ruleOf } from './evolve';
import type { StoredEvent, StoredOf, EventType } from './messages';
import { CONCERNS } from './registry';
import { isAt } from './place';
import type { RoomState } from './state';

/** Who an event is for, as its own rule says: no event is told to anybody by default. */
export const audienceOf = (event: StoredEvent, room: RoomState): Audience =>
  ruleOf(event).hears(event as StoredOf<EventType>, room);

/** The event as this viewer may have it, or null where it is not for them. */
export function audience(event: StoredEvent, viewer: Actor, room: RoomState): StoredEvent | null {
  return isFor(audienceOf(event, room), viewer, room)
    ? veiledFor(toldTo(event, teaches(viewer.role), room), viewer, room)
    : null;
}

function isFor(heard: Audience, viewer: Actor, room: RoomState): boolean {
  if (heard.to === 'everyone') return true;
  if (heard.to === 'place') return isAt(room, viewer, heard.place);
  return teaches(viewer.role) || heard.members.includes(viewer.member);
}

/** The event as it is told to those who teach, or to the others. */
export const toldTo = (event: StoredEvent, teaching: boolean, room: RoomState): StoredEvent =>
  ruleOf(event).told?.(event as never, room, teaching) ?? event;

/** The event as it is told to those who may not know a name in it; null where there is none. */
export const veiledOf = (event: StoredEvent, room: RoomState): StoredEvent | null =>
  ruleOf(event).veiled?.(event as never, room) ?? null;

function veiledFor(event: StoredEvent, viewer: Actor, room: RoomState): StoredEvent {
  const veiled = 'member' in event && event.member ? veiledOf(event, room) : null;
  return veiled && !isTold(room, viewer, (event as { member: string }).member) ? veiled : event;
}

/** The whole room as this viewer may have it: what a late page begins with. */
export function snapshotFor(room: RoomState, viewer: Actor): RoomState {
  const seen: Record<string, unknown> = { ...room };
  for (const { name, seenBy } of CONCERNS) if (seenBy) seen[name] = seenBy(room[name], viewer, room);
  // What changed last is in words already, with names in them.
  const elsewhere = room.notice?.place !== undefined && !isAt(room, viewer, room.notice.place);
  if (elsewhere || !sees(room, viewer, 'seeNames')) seen.notice = null;
  return seen as unknown as RoomState;
}

import type { Role } from '../api/limits';
import type { StoredEvent } from '../api/room';
import { teaches } from '../limits/resolve';

export interface Viewer {
  member: string;
  role: Role;
}

/** Who an event is for: everyone, those who teach with the named people, or nobody outside those who teach. */
export type Audience = { everyone: true } | { everyone: false; members: string[] };

/** Decided for the event alone, so that one broadcast serves all who get it. Teachers get every event. */
export function audienceOf(event: StoredEvent): Audience {
  if (event.type !== 'said' || event.addressee.to === 'class') return { everyone: true };
  const members = [event.from];
  if (event.addressee.to === 'member') members.push(event.addressee.member);
  return { everyone: false, members };
}

/** The event as this viewer may have it, or null where it is not for them. */
export function audience(event: StoredEvent, viewer: Viewer): StoredEvent | null {
  const to = audienceOf(event);
  return to.everyone || teaches(viewer.role) || to.members.includes(viewer.member) ? event : null;
}

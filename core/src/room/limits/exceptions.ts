import { capabilityOf, TRACK_KINDS, type Capability, type Permission } from '../../limits/capabilities';
import type { RoomEvent } from '../kernel/messages';
import type { RoomState } from '../kernel/state';
import { isOn, may } from '../may';
import { placeOf } from '../kernel/place';

/** What one person may, or may not; until an instant. */
export interface PersonalLimit {
  member: string;
  capability: Capability;
  state: Permission;
  until: number | null;
  by: string | null;
}

/** Their own switches that this closes are turned off by name: not everybody is told why. */
function switchedOff(room: RoomState, { member, capability, state, until, by }: PersonalLimit): RoomEvent[] {
  const person = room.presence.people[member];
  if (!person || state === 'open') return [];
  const own = { ...room.limits.exceptions[member], [capability]: { state, until, by, at: 0 } };
  const after = { ...room, limits: { ...room.limits, exceptions: { [member]: own } } };
  return TRACK_KINDS.filter((kind) => capabilityOf(kind) === capability)
    .filter((kind) => isOn(room, member, kind) && !may(after, person, capability).allowed)
    .map((kind): RoomEvent =>
      kind === 'screen'
        ? { type: 'presenting', member, on: false, place: placeOf(room, member) }
        : { type: kind === 'sound' ? 'microphone' : 'camera', member, on: false },
    );
}

/** What must happen in a room so that it has just these exceptions, of those that hold now. */
export function exceptionEvents(room: RoomState, wanted: readonly PersonalLimit[], now: number): RoomEvent[] {
  const holding = wanted.filter((w) => w.until === null || w.until > now);
  const events: RoomEvent[] = [];
  for (const one of holding) {
    const known = room.limits.exceptions[one.member]?.[one.capability];
    if (known?.state === one.state && known.until === one.until) continue;
    events.push(...switchedOff(room, one), { type: 'excepted', ...one });
  }
  for (const [member, own] of Object.entries(room.limits.exceptions))
    for (const capability of Object.keys(own) as Capability[])
      if (!holding.some((w) => w.member === member && w.capability === capability))
        events.push({
          type: 'exceptionEnded',
          by: null,
          member,
          capability,
          state: own[capability]!.state,
        });
  return events;
}

import type { Capability } from '../../limits/capabilities';
import type { Role } from '../../roster/role';
import type { Place } from '../kernel/schema';

export interface Occupant {
  member: string;
  name: string;
  role: Role;
  place: Place;
  present: boolean;
  /** What a guest may do whatever the limits say; hush closes it like everything else. */
  grants?: Capability[];
}

export interface PresenceState {
  /** Everyone who has been in the room, by member. */
  people: Readonly<Record<string, Occupant>>;
}

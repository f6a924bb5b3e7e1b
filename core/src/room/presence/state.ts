import type { Capability } from '../../limits/capabilities';
import type { Came } from '../../door/index';
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
  came?: Came;
  /** As they gave them. */
  pronouns?: string;
  /** By what they are here, where that is not one page. */
  devices?: Devices;
}

/** How many pages somebody has open on the room, and whether they have called in. */
export interface Devices {
  pages: number;
  telephone: boolean;
}

export interface PresenceState {
  /** Everyone who has been in the room, by member. */
  people: Readonly<Record<string, Occupant>>;
}

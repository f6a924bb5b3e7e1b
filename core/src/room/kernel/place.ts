import { teaches } from '../../roster/role';
import type { Actor } from './concern';
import type { Place } from './schema';
import type { RoomState } from './state';

/** The class itself, as a place of its room. */
export const CLASS: Place = 'class';

/** Where in the room somebody is. */
export const placeOf = (room: Pick<RoomState, 'presence'>, member: string): Place =>
  room.presence.people[member]?.place ?? CLASS;

/** Whether somebody hears what is in a place: who is there, and those who teach. */
export const isAt = (room: Pick<RoomState, 'presence'>, { member, role }: Actor, place: Place): boolean =>
  teaches(role) || placeOf(room, member) === place;

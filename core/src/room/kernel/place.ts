import { teaches } from '../../roster/role';
import type { Actor } from './concern';
import type { Place } from './schema';
import type { RoomState } from './state';

/** The class itself, as a place of its room. */
export const CLASS: Place = 'class';

/** Where in the room somebody is. */
export const placeOf = (room: Pick<RoomState, 'presence'>, member: string): Place =>
  room.presence.people[member]?.place ?? CLASS;

const OWN = 'own-';
/** What is somebody's own, as a place: nobody sits there, they see it wherever they are. */
export const ownPlace = (member: string): Place => `${OWN}${member}`;
/** Whose own place it is; null where it is one that is shared. */
export const ownerOf = (place: Place): string | null =>
  place.startsWith(OWN) ? place.slice(OWN.length) : null;

/** Whether somebody hears what is in a place: who is there, whose own it is, and those who teach. */
export const isAt = (room: Pick<RoomState, 'presence'>, { member, role }: Actor, place: Place): boolean =>
  teaches(role) || place === ownPlace(member) || placeOf(room, member) === place;

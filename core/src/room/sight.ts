import { teaches } from '../roster/role';
import { EVERYONE, type Actor, type Audience } from './kernel/concern';
import type { RoomState } from './kernel/state';
import { classLimit, may } from './may';

/** What one may see of the others. */
export const SEEING = ['seeNames', 'seeCameras', 'seeMarks'] as const;
export type Seeing = (typeof SEEING)[number];

type Seen = Pick<RoomState, 'limits' | 'floor' | 'presence'>;

/** Whether this person may see it of the others. Those who teach see all, and observers are there to watch. */
export const sees = (room: Seen, viewer: Actor, what: Seeing): boolean => may(room, viewer, what).allowed;

/** Whether it is hidden from anybody at all: where it is not, nobody has to be looked at. */
function isHiddenFromSome(room: Seen, what: Seeing): boolean {
  return (
    !classLimit(room, what).allowed ||
    Object.values(room.limits.exceptions).some((own) => own[what] && own[what].state !== 'open')
  );
}

/** Everybody who was ever here and may see it; null where that is all. */
export const seers = (room: Seen, what: Seeing): string[] | null =>
  isHiddenFromSome(room, what)
    ? Object.values(room.presence.people)
        .filter((o) => sees(room, o, what))
        .map((o) => o.member)
    : null;

/** A mark on somebody's seat, for those who may see others' marks. */
export function markedFor(room: Seen, member: string): Audience {
  const who = seers(room, 'seeMarks');
  return who ? { to: 'some', members: [...who, member] } : EVERYONE;
}

/** What somebody is called by those who may not know their name: by the order of their coming. */
export function seatName({ presence: { people } }: Pick<RoomState, 'presence'>, member: string): string {
  const students = Object.values(people).filter((o) => !teaches(o.role));
  return `Student ${students.findIndex((o) => o.member === member) + 1}`;
}

/** Whether a viewer is told somebody's name: their own, and a teacher's, always. */
export const isTold = (room: Seen, viewer: Actor, member: string): boolean =>
  member === viewer.member ||
  teaches(room.presence.people[member]?.role ?? 'student') ||
  sees(room, viewer, 'seeNames');

/** The class list as a viewer may have it. Whose names they may not know are there once they have come, as the room has them. */
export const peopleFor = <P extends Actor>(room: Seen, viewer: Actor, people: readonly P[]): P[] =>
  people.filter((p) => p.member === viewer.member || teaches(p.role) || sees(room, viewer, 'seeNames'));

/**
 * Whose cameras a viewer does not receive: of those who neither teach nor have the floor nor were made large for all, and are
 * not themselves.
 */
export function hiddenCameras(room: Seen & Pick<RoomState, 'stage'>, viewer: Actor): Set<string> {
  if (sees(room, viewer, 'seeCameras')) return new Set();
  const large = Object.values(room.stage.featured);
  return new Set(
    Object.values(room.presence.people)
      .filter((o) => !large.includes(o.member))
      .filter((o) => o.member !== viewer.member && !teaches(o.role) && room.floor.holder !== o.member)
      .map((o) => o.member),
  );
}

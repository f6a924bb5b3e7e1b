import { teaches } from '../../roster/role';
import type { Actor } from '../kernel/concern';
import { CLASS, ownerOf } from '../kernel/place';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import { tablesHad } from '../tables/index';
import { nameIn } from '../words';
import { onBoard, sidesOf } from './index';
import type { OnBoard } from './state';

/** A board as it was when the class was over. */
export interface KeptBoard {
  place: Place;
  /** Of the class, of a table by its name, or of somebody. */
  title: string;
  /** Its sides on which something stands, in their order; nobody's name is on a mark. */
  sides: readonly OnBoard[];
}

/**
 * The boards of a class that is over, as somebody has them: the class's, those of the tables they sat at, and their own;
 * those who teach have all. What somebody drew who does not agree to be recorded is theirs alone.
 */
export function boardsAfter(room: RoomState, viewer: Actor, withheld: ReadonlySet<string>): KeptBoard[] {
  const tables = tablesHad(room, viewer);
  const titleOf = (place: Place): string | null => {
    if (place === CLASS) return 'The class';
    const owner = ownerOf(place);
    if (owner !== null) return owner === viewer.member ? 'Your own' : nameIn(room, owner, 'Somebody');
    return tables.find((t) => t.place === place)?.name ?? null;
  };
  const has = (place: Place): boolean =>
    place === CLASS ||
    (ownerOf(place) === null ? tables.some((t) => t.place === place) : teaches(viewer.role)) ||
    ownerOf(place) === viewer.member;
  const rank = (place: Place) =>
    place === CLASS
      ? -1
      : ownerOf(place) === null
        ? tables.findIndex((t) => t.place === place)
        : tables.length;
  const places = [...new Set(room.board.marks.map((m) => m.place))].filter(has);
  return places
    .flatMap((place) => {
      const title = titleOf(place);
      const sides = Array.from({ length: sidesOf(room.board, place) }, (_, i) => {
        const { marks, ground } = onBoard(room.board, place, i + 1);
        const shown = marks.filter((m) => m.by === viewer.member || !withheld.has(m.by));
        return { ground, marks: shown.map((m) => ({ ...m, by: '' })) };
      }).filter((side) => side.marks.length);
      return title === null || !sides.length ? [] : [{ place, title, sides }];
    })
    .sort((a, b) => rank(a.place) - rank(b.place) || a.title.localeCompare(b.title));
}

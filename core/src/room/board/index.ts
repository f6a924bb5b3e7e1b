import { teaches } from '../../roster/role';
import { concern, EVERYONE, type Actor, type Audience } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { CLASS, isAt, ownerOf, placeOf } from '../kernel/place';
import { refuse, type Refusal } from '../kernel/refusals';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import { tableOf } from '../tables/index';
import { nameIn } from '../words';
import { keptOn, moved } from './geometry';
import { MOST_OFF, MOST_PICTURES, type BoardState, type Ground, type Mark, type OnBoard } from './state';

/** So much of a board is shown to the class at most. */
const MOST_SHOWN = 3000;
/** What it is called to those who are not told whose it is. */
const UNNAMED = 'one of you';

/** Whether somebody reads what is written together in a place: who is there, who teaches, and all while it is shown. */
export const readsNotes = (room: Pick<RoomState, 'presence' | 'board'>, viewer: Actor, place: Place) =>
  isAt(room, viewer, place) || (room.board.shown?.from === place && isAt(room, viewer, CLASS));

/** The side of a place's board that is turned to everybody, 1 and up. */
export const sideOf = (board: Pick<BoardState, 'turned'>, place: Place): number => board.turned[place] ?? 1;

const groundKey = (place: Place, side: number) => `${place} ${side}`;

/** What a side is ruled with. */
export const groundOf = (board: Pick<BoardState, 'grounds'>, place: Place, side: number): Ground =>
  board.grounds[groundKey(place, side)] ?? 'plain';

/** One side of a place's board: the one that is turned to everybody, where none is said. */
export function onBoard(board: BoardState, place: Place, side = sideOf(board, place)): OnBoard {
  const there = (m: Mark) => m.place === place && m.side === side;
  const { marks } = board;
  return { marks: marks.every(there) ? marks : marks.filter(there), ground: groundOf(board, place, side) };
}

/** The sides of a place's board that there are: to the last that was drawn on, or is turned to everybody. */
export const sidesOf = (board: BoardState, place: Place): number =>
  board.marks.reduce((most, m) => (m.place === place ? Math.max(most, m.side) : most), sideOf(board, place));

/** Which board a command is for: that of where one is, one's own, or, for those who teach, anybody's own. */
function boardFor(room: RoomState, { member, role }: Actor, at: Place | undefined): Place | Refusal {
  if (at === undefined) return placeOf(room, member);
  const owner = ownerOf(at);
  if (owner === null || !room.presence.people[owner]) return refuse('no-board');
  if (teaches(role)) return at;
  return owner === member && room.board.given && role !== 'observer' ? at : refuse('no-board');
}

/** Who hears of what happens on a board. */
function hearsAt(place: Place): Audience {
  const owner = ownerOf(place);
  return owner === null ? { to: 'place', place } : { to: 'some', members: [owner] };
}

/** A board of one's own is drawn on whatever the class's limits say: nobody but those who teach sees it. */
const needsToDraw = ({ at }: { at?: Place | undefined }) => (at === undefined ? (['draw'] as const) : []);

/** These of the marks, as far as they are of this board, and this person may take them off, back or elsewhere. */
function among(all: readonly Mark[], { member, role }: Actor, place: Place, of: readonly number[]): Mark[] {
  const wanted = new Set(of);
  return all.filter((m) => wanted.has(m.seq) && m.place === place && (teaches(role) || m.by === member));
}

const seqsOf = (marks: readonly Mark[]) => marks.map((m) => m.seq);
/** In the order in which they were put there. */
const inOrder = (marks: readonly Mark[]) => marks.toSorted((a, b) => a.seq - b.seq);

/** Decides on a command for the board that it is for; refused where there is none. */
const onIts =
  <C extends { at?: Place | undefined }>(
    decide: (room: RoomState, actor: Actor, command: C, place: Place) => RoomEvent[] | Refusal,
  ) =>
  (room: RoomState, actor: Actor, command: C): RoomEvent[] | Refusal => {
    const place = boardFor(room, actor, command.at);
    return typeof place === 'string' ? decide(room, actor, command, place) : place;
  };

/** Boards that are drawn on together, one in each place, and boards of one's own. */
export const board = concern({
  name: 'board',
  empty: { marks: [], turned: {}, grounds: {}, off: [], cleared: {}, given: false, shown: null },
  commands: {
    draw: {
      who: 'anyone',
      phase: 'any',
      needs: needsToDraw,
      decide: onIts((room, { member: by }, { stroke }, place) => [
        { type: 'drawn', by, stroke, place, side: sideOf(room.board, place) },
      ]),
    },
    putText: {
      who: 'anyone',
      phase: 'any',
      needs: needsToDraw,
      decide: onIts((room, { member: by }, { text }, place) => [
        { type: 'textPut', by, text, place, side: sideOf(room.board, place) },
      ]),
    },
    putShape: {
      who: 'anyone',
      phase: 'any',
      needs: needsToDraw,
      decide: onIts((room, { member: by }, { shape }, place) => [
        { type: 'shapePut', by, shape, place, side: sideOf(room.board, place) },
      ]),
    },
    putPicture: {
      who: 'anyone',
      phase: 'any',
      needs: ({ at }) => (at === undefined ? ['draw', 'attachFiles'] : []),
      decide: onIts((room, { member: by }, { picture }, place) =>
        holdsMore(room.board, place)
          ? [{ type: 'picturePut', by, picture, place, side: sideOf(room.board, place) }]
          : refuse('pictures-enough'),
      ),
    },
    takeOff: {
      who: 'anyone',
      phase: 'any',
      needs: needsToDraw,
      decide: onIts((room, actor, { marks }, place) => {
        const those = among(room.board.marks, actor, place, marks);
        return those.length
          ? [{ type: 'takenOff', by: actor.member, marks: seqsOf(those), place }]
          : refuse('no-mark');
      }),
    },
    putBack: {
      who: 'anyone',
      phase: 'any',
      needs: needsToDraw,
      decide: onIts((room, actor, { marks }, place) => {
        const those = among(room.board.off, actor, place, marks);
        return those.length
          ? [{ type: 'broughtBack', by: actor.member, marks: seqsOf(those), place }]
          : refuse('no-mark');
      }),
    },
    shift: {
      who: 'anyone',
      phase: 'any',
      needs: needsToDraw,
      decide: onIts((room, actor, { marks, x, y }, place) => {
        const those = among(room.board.marks, actor, place, marks);
        if (!those.length) return refuse('no-mark');
        const by = keptOn(those, x, y);
        if (by.x === 0 && by.y === 0) return [];
        return [{ type: 'shifted', by: actor.member, marks: seqsOf(those), ...by, place }];
      }),
    },
    clearBoard: {
      who: 'teaching',
      phase: 'live',
      decide: onIts((room, { member: by }, _command, place) =>
        onBoard(room.board, place).marks.length
          ? [{ type: 'boardCleared', by, place, side: sideOf(room.board, place) }]
          : [],
      ),
    },
    undoClearing: {
      who: 'teaching',
      phase: 'live',
      decide: onIts((room, { member: by }, _command, place) =>
        room.board.cleared[place]?.length
          ? [{ type: 'clearingUndone', by, place }]
          : refuse('nothing-cleared'),
      ),
    },
    turnBoard: {
      who: 'teaching',
      phase: 'live',
      decide: onIts((room, { member: by }, { side }, place) =>
        side === sideOf(room.board, place) ? [] : [{ type: 'boardTurned', by, place, side }],
      ),
    },
    layGround: {
      who: 'teaching',
      phase: 'live',
      decide: onIts((room, { member: by }, { ground }, place) => {
        const side = sideOf(room.board, place);
        return groundOf(room.board, place, side) === ground
          ? []
          : [{ type: 'groundLaid', by, ground, place, side }];
      }),
    },
    giveBoards: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { given }) =>
        room.board.given === given ? [] : [{ type: 'boardsGiven', by, given }],
    },
    showWork: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { place: from, named = true }) => {
        const table = tableOf(room, from);
        const owner = ownerOf(from);
        if (owner === null ? !table : !room.presence.people[owner])
          return refuse(owner === null ? 'no-table' : 'no-board');
        const { marks, ground } = onBoard(room.board, from);
        return [
          {
            ...{ type: 'workShown', by, from, ground },
            title: owner === null ? table!.name : named ? nameIn(room, owner) : UNNAMED,
            marks: marks.slice(0, MOST_SHOWN).map(({ place: _, side: __, ...one }) => one),
            unnamed: owner !== null && !named,
          },
        ];
      },
    },
    putWorkBack: {
      who: 'teaching',
      phase: 'live',
      decide: ({ board: { shown } }, { member: by }) => (shown ? [{ type: 'workPutBack', by }] : []),
    },
  },
  events: {
    drawn: {
      version: 3,
      upcast: [(body) => ({ ...body, place: CLASS }), onFirstSide],
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { seq, by, stroke, place, side }) =>
        put(part, { ...stroke, kind: 'stroke', seq, by, place, side }),
      log: null,
    },
    textPut: {
      version: 2,
      upcast: [onFirstSide],
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { seq, by, text, place, side }) =>
        put(part, { ...text, kind: 'text', seq, by, place, side }),
      log: ({ by, text }, nameOf) => `${nameOf(by)} put on the board: ${text.text}`,
    },
    shapePut: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { seq, by, shape, place, side }) =>
        put(part, { ...shape, kind: 'shape', seq, by, place, side }),
      log: null,
    },
    picturePut: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { seq, by, picture, place, side }) =>
        put(part, { ...picture, kind: 'picture', seq, by, place, side }),
      log: ({ by, picture }, nameOf) => `${nameOf(by)} put a picture on the board: ${picture.words}`,
    },
    takenOff: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { marks }) => {
        const gone = new Set(marks);
        const off = part.marks.filter((m) => gone.has(m.seq));
        return {
          ...part,
          marks: part.marks.filter((m) => !gone.has(m.seq)),
          off: keptOff([...part.off, ...off]),
        };
      },
      log: null,
    },
    broughtBack: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { marks }) => {
        const wanted = new Set(marks);
        const back = part.off.filter((m) => wanted.has(m.seq));
        return {
          ...part,
          marks: inOrder([...part.marks, ...back]),
          off: part.off.filter((m) => !wanted.has(m.seq)),
        };
      },
      log: null,
    },
    shifted: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { marks, x, y }) => {
        const those = new Set(marks);
        return { ...part, marks: part.marks.map((m) => (those.has(m.seq) ? moved(m, x, y) : m)) };
      },
      log: null,
    },
    boardCleared: {
      version: 3,
      upcast: [(body) => ({ ...body, place: CLASS }), onFirstSide],
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { place, side }) => {
        const gone = (m: Mark) => m.place === place && m.side === side;
        return {
          ...part,
          marks: part.marks.filter((m) => !gone(m)),
          cleared: { ...part.cleared, [place]: part.marks.filter(gone) },
        };
      },
      notice: () => 'The board has been cleared.',
      log: ({ by }, nameOf) => `${nameOf(by)} cleared the board.`,
    },
    clearingUndone: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { place }) => {
        const { [place]: back = [], ...cleared } = part.cleared;
        return { ...part, marks: inOrder([...part.marks, ...back]), cleared };
      },
      notice: () => 'What was cleared is on the board again.',
      log: ({ by }, nameOf) => `${nameOf(by)} put back what had been cleared.`,
    },
    boardTurned: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { place, side }) => ({ ...part, turned: { ...part.turned, [place]: side } }),
      log: null,
    },
    groundLaid: {
      version: 1,
      hears: ({ place }) => hearsAt(place),
      evolve: (part, { place, side, ground }) => ({
        ...part,
        grounds: { ...part.grounds, [groundKey(place, side)]: ground },
      }),
      log: null,
    },
    boardsGiven: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { given }) => ({ ...part, given }),
      notice: ({ given }) =>
        given ? 'Everybody has a board of their own.' : 'The boards of their own are put away.',
      log: ({ by, given }, nameOf) =>
        `${nameOf(by)} ${given ? 'gave everybody a board of their own' : 'put the boards of their own away'}.`,
    },
    workShown: {
      version: 2,
      upcast: [upcastWork],
      hears: () => ({ to: 'place', place: CLASS }),
      told: (event, _room, teaching) => (event.unnamed && !teaching ? unnamed(event) : event),
      evolve: (part, { from, title, ground, marks, unnamed }) => ({
        ...part,
        shown: {
          ...{ from, title, ground, unnamed },
          marks: marks.map((m) => ({ ...m, place: from, side: 1 })),
        },
      }),
      chapter: ({ title }) => `What ${title} made`,
      log: ({ by, title, unnamed, from }, nameOf) =>
        `${nameOf(by)} showed what ${unnamed ? `${nameOf(ownerOf(from) ?? '')} made, without the name` : `${title} made`}.`,
    },
    workPutBack: {
      version: 1,
      hears: () => ({ to: 'place', place: CLASS }),
      evolve: (part) => ({ ...part, shown: null }),
      log: null,
    },
  },
  heeds: {
    // A class that goes to its tables puts away what it looked at.
    tablesLaid: (part) => (part.shown ? { ...part, shown: null } : part),
    dismissed: (part) => (part.shown || part.given ? { ...part, shown: null, given: false } : part),
  },
  seenBy: (part, viewer, room) => {
    if (teaches(viewer.role)) return part;
    const { shown } = part;
    const at = (place: Place) => isAt(room, viewer, place);
    return {
      ...part,
      shown: !shown || !at(CLASS) ? null : shown.unnamed ? unnamed(shown) : shown,
      marks: part.marks.filter((m) => at(m.place)),
      off: part.off.filter((m) => at(m.place)),
      turned: only(part.turned, at),
      grounds: only(part.grounds, (key) => at(key.split(' ')[0]!)),
      cleared: only(part.cleared, at),
    };
  },
});

const only = <T>(of: Readonly<Record<string, T>>, at: (key: string) => boolean): Record<string, T> =>
  Object.fromEntries(Object.entries(of).filter(([key]) => at(key)));

/** A board that is shown, as those have it who are not told whose it is. */
const unnamed = <M extends { by: string }, T extends { from: string; marks: readonly M[] }>(shown: T): T => ({
  ...shown,
  from: '',
  marks: shown.marks.map((m) => ({ ...m, by: '', ...('place' in m ? { place: '' } : {}) })),
});

const isPut = (m: Mark) => m.kind === 'picture';

/** Whether a place's board takes one more picture: all who are there are given each. */
function holdsMore({ marks, cleared }: BoardState, place: Place): boolean {
  const all = [...marks, ...Object.values(cleared).flat()].filter(isPut);
  const here = all.filter((m) => m.place === place).length;
  return here < MOST_PICTURES.place && all.length < MOST_PICTURES.room;
}

/** What can be put back of what was taken off: of pictures the last few. */
function keptOff(off: readonly Mark[]): Mark[] {
  const pictures = off.filter(isPut).slice(-MOST_PICTURES.place);
  return off.filter((m) => !isPut(m) || pictures.includes(m)).slice(-MOST_OFF);
}

const put = (part: BoardState, mark: Mark): BoardState => ({ ...part, marks: [...part.marks, mark] });

function onFirstSide(body: Record<string, unknown>) {
  return { ...body, side: 1 };
}

function upcastWork({ strokes, texts, ...body }: Record<string, unknown>) {
  const of = (kind: string, all: unknown) => (all as object[]).map((m) => ({ ...m, kind }));
  return {
    ...body,
    ground: 'plain',
    unnamed: false,
    marks: [...of('stroke', strokes), ...of('text', texts)],
  };
}

import { listWords } from '../../calendar/words';
import { teaches } from '../../roster/role';
import { concern } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import { CLASS, placeOf } from '../kernel/place';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import { isOn, may, unhushed } from '../may';
import { isHere } from '../presence/index';
import { nameIn } from '../words';
import type { Front, StageState } from './state';

/** Whoever is gone from a place is not large there any more. */
const unfeatured = (part: StageState, gone: (member: string) => boolean): StageState =>
  Object.values(part.featured).some(gone)
    ? { ...part, featured: Object.fromEntries(Object.entries(part.featured).filter(([, m]) => !gone(m))) }
    : part;

/** Nobody is asked any more who has presented, or is gone. */
const unasked = (part: StageState, member: string): StageState => {
  if (!(member in part.asked)) return part;
  const { [member]: _, ...asked } = part.asked;
  return { ...part, asked };
};

const kept = (part: StageState, keep: (member: string) => boolean): StageState => {
  const entries = Object.entries(part.presenting);
  if (entries.every(([, members]) => members.every(keep))) return part;
  const left = entries.map(([place, members]) => [place, members.filter(keep)] as const);
  return { ...part, presenting: Object.fromEntries(left.filter(([, members]) => members.length)) };
};

/** Who presents in a place. */
export const presentersAt = (room: Pick<RoomState, 'stage'>, place: Place): readonly string[] =>
  room.stage.presenting[place] ?? [];

/** Who presents there once somebody begins: of as many as may, those who began last. */
const withOneMore = (part: StageState, place: Place, member: string): readonly string[] => {
  const others = (part.presenting[place] ?? []).filter((m) => m !== member);
  return [...others, member].slice(part.two[place] ? -2 : -1);
};

const NOTHING: StageState = { presenting: {}, two: {}, featured: {}, front: {}, asked: {} };

/** As with microphones: presenting that is closed ends, and does not begin again by itself. */
const closedOff = (part: StageState, room: RoomState): StageState =>
  kept(part, (m) => {
    const person = room.presence.people[m];
    return person !== undefined && may(unhushed(room), person, 'present').allowed;
  });

/** What a place looks at. */
export const frontOf = (room: Pick<RoomState, 'stage'>, place: Place): Front =>
  room.stage.front[place] ?? 'picture';

const inFront = (part: StageState, place: Place, tool: Front): StageState => ({
  ...part,
  front: { ...part.front, [place]: tool },
});

const FRONT_WORDS: Record<Front, string> = {
  picture: 'pictures',
  faces: 'everybody’s faces',
  seats: 'the seats',
  board: 'the board',
  slides: 'the pages',
  notes: 'the notes',
  tables: 'the tables',
  film: 'the film',
};

/** What the room looks at: which of its tools, and who presents a screen, one in each place, or two where that is said. */
export const stage = concern({
  name: 'stage',
  empty: NOTHING,
  commands: {
    setFront: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { tool }) => {
        const place = placeOf(room, by);
        return frontOf(room, place) === tool ? [] : [{ type: 'frontSet', by, tool, place }];
      },
    },
    feature: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { member }) => {
        const place = placeOf(room, by);
        if (member !== null && !(isHere(room, member) && placeOf(room, member) === place))
          return refuse('not-here');
        return (room.stage.featured[place] ?? null) === member
          ? []
          : [{ type: 'featured', by, member, place }];
      },
    },
    askToPresent: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { member }) => {
        const person = room.presence.people[member];
        if (!person || !isHere(room, member)) return refuse('not-here');
        if (!may(room, person, 'present').allowed) return refuse('no-presenting');
        const is = isOn(room, member, 'screen') || room.stage.asked[member] !== undefined || member === by;
        return is ? [] : [{ type: 'presentAsked', by, member }];
      },
    },
    letTwoPresent: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { on }) => {
        const place = placeOf(room, by);
        if (Boolean(room.stage.two[place]) === on) return [];
        // Whoever began first goes on alone.
        const second = on ? [] : presentersAt(room, place).slice(1);
        return [
          ...second.map((member) => ({ type: 'presenting' as const, member, on: false, place })),
          { type: 'twoLetPresent', by, on, place },
        ];
      },
    },
    present: {
      who: 'anyone',
      phase: 'any',
      needs: ({ on }) => (on ? ['present'] : []),
      decide: (room, { member, role }, { on }) => {
        const place = placeOf(room, member);
        const others = presentersAt(room, place);
        if (others.includes(member) === on) return [];
        if (on && others.length >= (room.stage.two[place] ? 2 : 1) && !teaches(role)) {
          const names = listWords(others.map((m) => nameIn(room, m, 'Somebody')));
          return refuse(
            'taken',
            `${names} ${others.length > 1 ? 'are' : 'is'} presenting. You can present when ${others.length > 1 ? 'one of them stops' : 'they stop'}.`,
          );
        }
        return [{ type: 'presenting', member, on, place }];
      },
    },
  },
  events: {
    frontSet: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { tool, place }) => inFront(part, place, tool),
      log: ({ by, tool }, nameOf) => `${nameOf(by)} put ${FRONT_WORDS[tool]} before everybody.`,
    },
    featured: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { member, place }) => {
        const { [place]: _, ...others } = part.featured;
        const featured = member ? { ...others, [place]: member } : others;
        return member ? inFront({ ...part, featured }, place, 'picture') : { ...part, featured };
      },
      log: ({ by, member }, nameOf) =>
        member
          ? `${nameOf(by)} put ${nameOf(member)} before everybody.`
          : `${nameOf(by)} has nobody large before everybody any more.`,
    },
    presentAsked: {
      version: 1,
      hears: ({ member }) => ({ to: 'some', members: [member] }),
      evolve: (part, { by, member }) => ({ ...part, asked: { ...part.asked, [member]: by } }),
      log: ({ by, member }, nameOf) => `${nameOf(by)} asked ${nameOf(member)} to present.`,
    },
    twoLetPresent: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { on, place }) => {
        const { [place]: _, ...others } = part.two;
        return { ...part, two: on ? { ...others, [place]: true } : others };
      },
      log: ({ by, on }, nameOf) =>
        on ? `${nameOf(by)} lets two present side by side.` : `${nameOf(by)} lets one present at a time.`,
    },
    presenting: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { member, on, place }) => {
        if (!on) return kept(unasked(part, member), (m) => m !== member);
        const presenting = { ...part.presenting, [place]: withOneMore(part, place, member) };
        return inFront({ ...unasked(part, member), presenting }, place, 'picture');
      },
      chapter: ({ member, on }, nameOf) => (on ? `${nameOf(member)} presents` : null),
      log: ({ member, on }, nameOf) => `${nameOf(member)} ${on ? 'presents' : 'stopped presenting'}.`,
    },
  },
  seenBy: (part, { member, role }) =>
    teaches(role)
      ? part
      : { ...part, asked: Object.fromEntries(Object.entries(part.asked).filter(([m]) => m === member)) },
  heeds: {
    entered: (part, { member }) => kept(part, (m) => m !== member),
    left: (part, { member }) =>
      unfeatured(
        kept(unasked(part, member), (m) => m !== member),
        (m) => m === member,
      ),
    workShown: (part) => inFront(part, CLASS, 'board'),
    boardsGiven: (part, { given }) => (given ? inFront(part, CLASS, 'board') : part),
    slidesShown: (part, { place }) => inFront(part, place, 'slides'),
    slidesPutAway: (part, { place }) =>
      part.front[place] === 'slides' ? inFront(part, place, 'picture') : part,
    dismissed: () => NOTHING,
    limitSet: (part, _event, room) => closedOff(part, room),
    tablesLimited: (part, _event, room) => closedOff(part, room),
    cued: (part, _event, room) => closedOff(part, room),
    exceptionEnded: (part, _event, room) => closedOff(part, room),
    lentBack: (part, _event, room) => closedOff(part, room),
    settingsChanged: (part, _event, room) => closedOff(part, room),
    floorTaken: (part, _event, room) => closedOff(part, room),
    floorGiven: (part, _event, room) => closedOff(part, room),
    known: (part, _event, room) => closedOff(part, room),
    // Who presented presents no more where they went from.
    wentTo: (part, { moves }, room) =>
      unfeatured(
        closedOff(
          kept(part, (m) => !moves.some((v) => v.member === m)),
          room,
        ),
        (m) => moves.some((v) => v.member === m),
      ),
    filmShown: (part) => inFront(part, CLASS, 'film'),
    filmPutAway: (part) => (part.front[CLASS] === 'film' ? inFront(part, CLASS, 'picture') : part),
    tablesLaid: (part) => inFront(part, CLASS, 'tables'),
    tablesCleared: (part) => (part.front[CLASS] === 'tables' ? inFront(part, CLASS, 'picture') : part),
  },
});

import { countWords } from '../../calendar/words';
import { teaches, type Role } from '../../roster/role';
import { doneAtTables, OPEN_AT_TABLES } from '../../limits/tables';
import { concern, EVERYONE, type Actor, type Due } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { CLASS, placeOf } from '../kernel/place';
import { refuse, type Refusal } from '../kernel/refusals';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import type { TableLimits } from '../limits/state';
import { isHere } from '../presence/index';
import { LONGEST_TIME_S } from '../timer/state';
import { nameIn } from '../words';
import { fewest, pairsOf, withTheRest } from './seating';
import { COMPANY, NOTICE_MS, type Laid, type Table, type TablesState } from './state';

/** Whether somebody has a seat at a table: whoever teaches walks around, observers watch the class. */
export const isSeated = ({ role }: { role: Role }): boolean => role === 'student' || role === 'guest';

/** The table of a place, now or before; null where it is none. */
export const tableOf = ({ tables: { laid, were } }: Pick<RoomState, 'tables'>, place: Place): Table | null =>
  [...(laid?.tables ?? []), ...were].find((t) => t.place === place) ?? null;

/** The tables of a class, as far as somebody has what was made there: theirs; those who teach have all. */
export const tablesHad = ({ tables: { laid, were } }: Pick<RoomState, 'tables'>, viewer: Actor): Table[] =>
  [...(laid?.tables ?? []), ...were].filter((t) => teaches(viewer.role) || t.members.includes(viewer.member));

const laidAt = ({ tables: { laid } }: RoomState, place: Place) =>
  laid?.tables.find((t) => t.place === place) ?? null;

const seatOf = (laid: Laid, member: string): Place | null =>
  laid.tables.find((t) => t.members.includes(member))?.place ?? null;

/** Where somebody comes in: at their table, or where fewest sit; who teaches, and where there is none, in the class. */
export function placeFor({ tables: { laid } }: Pick<RoomState, 'tables'>, { member, role }: Actor): Place {
  if (!laid || !isSeated({ role }) || laid.aside.includes(member)) return CLASS;
  const own = seatOf(laid, member);
  if (own || laid.choose) return own ?? CLASS;
  const least = fewest(laid.tables.map(({ members, place }) => ({ length: members.length, place })));
  return least.place;
}

/** Those who are here, each to where they are to be, as far as they are not there. */
function going(room: RoomState, by: string | null, to: (member: string) => Place): RoomEvent[] {
  const moves = Object.values(room.presence.people)
    .filter((o) => o.present && to(o.member) !== o.place)
    .map(({ member }) => ({ member, to: to(member) }));
  return moves.length ? [{ type: 'wentTo', by, moves }] : [];
}

function lay(
  room: RoomState,
  by: string,
  said: { tables: readonly { name: string; members: readonly string[] }[] } & Pick<
    Laid,
    'choose' | 'until' | 'files'
  > & {
      task: string;
    } & Pick<TableLimits, 'limits' | 'sheet'>,
): RoomEvent[] | Refusal {
  if (room.tables.laid) return refuse('tables-laid');
  const all = said.tables.flatMap((t) => t.members);
  if (new Set(all).size < all.length) return refuse('seated-twice');
  const taught = (member: string) => teaches(room.presence.people[member]?.role ?? 'student');
  const wanted = said.tables.map((t) => t.members.filter((m) => !taught(m)));
  const here = Object.values(room.presence.people).filter((o) => o.present && isSeated(o));
  const rest = said.choose ? [] : here.map((o) => o.member).filter((m) => !all.includes(m));
  const seating = withTheRest(wanted, rest);
  const tables = said.tables.map(({ name }, i) => ({
    place: `table-${room.tables.times + 1}-${i + 1}`,
    name,
    members: seating[i]!,
  }));
  const places = new Map(tables.flatMap((t) => t.members.map((m) => [m, t.place] as const)));
  const recorded = room.recording.tables;
  const paused = room.recording.state === 'on' && !recorded;
  const { until, task, files, limits, sheet, choose } = said;
  return [
    // What is said at tables is not the class's.
    ...(paused ? [{ type: 'recordingPaused' as const, by }] : []),
    {
      ...{ type: 'tablesLaid' as const, by, tables, until, task, files: [...files] },
      ...{ limits, sheet, choose, paused, recorded },
    },
    ...going(room, by, (m) => places.get(m) ?? placeOf(room, m)),
  ];
}

/** Everybody is in the class again, and what was paused for the tables goes on. */
export function clearing(room: RoomState, by: string | null): RoomEvent[] {
  const { laid } = room.tables;
  if (!laid) return [];
  const { state, kept } = room.recording;
  const goesOn = laid.paused && state === 'paused' && kept !== 'nothing' && room.bell.overAt === null;
  return [
    { type: 'tablesCleared', by },
    ...going(room, by, () => CLASS),
    ...(goesOn ? [{ type: 'recordingResumed' as const, by: null }] : []),
  ];
}

/** What the time of the tables does by itself. */
function due(room: RoomState): Due | null {
  const { laid } = room.tables;
  if (!laid || laid.until === null || room.bell.phase !== 'live') return null;
  const { until, soon } = laid;
  return soon
    ? { at: until, events: clearing(room, null) }
    : { at: until - NOTICE_MS, events: [{ type: 'backSoon', by: null, until }] };
}

const change = (part: TablesState, more: Partial<Laid>): TablesState =>
  part.laid ? { ...part, laid: { ...part.laid, ...more } } : part;

function seatedIn(laid: Laid, member: string, place: Place): Partial<Laid> {
  const tables = laid.tables.map((t) => {
    const members = t.members.filter((m) => m !== member);
    if (t.place === place) return { ...t, members: [...members, member] };
    return members.length === t.members.length ? t : { ...t, members };
  });
  const aside = laid.aside.filter((m) => m !== member);
  return { tables, aside: place === CLASS ? [...aside, member] : aside };
}

function metAt(met: TablesState['met'], tables: readonly Table[]): TablesState['met'] {
  const all = { ...met };
  for (const { members } of tables)
    if (members.length <= COMPANY) for (const pair of pairsOf(members)) all[pair] = (all[pair] ?? 0) + 1;
  return all;
}

const cleared = ({ laid, ...part }: TablesState): TablesState =>
  laid
    ? {
        ...part,
        laid: null,
        met: metAt(part.met, laid.tables),
        were: [...laid.tables, ...part.were].slice(0, 180),
      }
    : { ...part, laid };

/** The small tables of a class: places of their own, to which all go and from which all come back together. */
export const tables = concern({
  name: 'tables',
  empty: { laid: null, times: 0, met: {}, were: [] },
  commands: {
    layTables: {
      who: 'teaching',
      phase: 'live',
      decide: (
        room,
        { member: by },
        { tables, seconds, task = '', files = [], limits, sheet = '', choose = false },
        now,
      ) => {
        const until = seconds === null ? null : now + seconds * 1000;
        return lay(room, by, { tables, until, task, files, limits: doneAtTables(limits), sheet, choose });
      },
    },
    seatAt: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { member, place }) => {
        const person = room.presence.people[member];
        if (!person) return refuse('never-here');
        if (!isSeated(person)) return refuse('no-seat');
        if (!room.tables.laid) return refuse('no-tables');
        if (place !== CLASS && !laidAt(room, place)) return refuse('no-table');
        const moves = isHere(room, member) && person.place !== place;
        return [
          { type: 'seated', by, member, place },
          ...(moves ? [{ type: 'wentTo' as const, by, moves: [{ member, to: place }] }] : []),
        ];
      },
    },
    goTo: {
      who: 'anyone',
      phase: 'live',
      decide: (room, { member, role }, { place }) => {
        const { laid } = room.tables;
        if (!laid) return refuse('no-tables');
        if (place !== CLASS && !laidAt(room, place)) return refuse('no-table');
        if (!teaches(role) && !(laid.choose && isSeated({ role }) && place !== CLASS)) return refuse('stays');
        if (placeOf(room, member) === place) return [];
        return [
          ...(teaches(role) ? [] : [{ type: 'seated' as const, by: member, member, place }]),
          { type: 'wentTo', by: member, moves: [{ member, to: place }] },
        ];
      },
    },
    wordToTables: {
      who: 'teaching',
      phase: 'live',
      decide: ({ tables: { laid } }, { member: by }, { text }) =>
        laid ? [{ type: 'tablesTold', by, text }] : refuse('no-tables'),
    },
    callHelp: {
      who: 'anyone',
      phase: 'live',
      decide: (room, { member }, { on }) => {
        const place = placeOf(room, member);
        const { laid } = room.tables;
        if (!laid || !laidAt(room, place)) return refuse('at-no-table');
        return laid.calls.some((c) => c.place === place) === on ? [] : [{ type: 'helpCalled', place, on }];
      },
    },
    moreTableTime: {
      who: 'teaching',
      phase: 'live',
      decide: ({ tables: { laid } }, { member: by }, { seconds }, now) => {
        if (!laid) return refuse('no-tables');
        const until = (laid.until ?? now) + seconds * 1000;
        if (until - laid.from > LONGEST_TIME_S * 1000) return refuse('no-longer');
        return [{ type: 'tableTimeSet', by, until }];
      },
    },
    endTables: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { now: atOnce }, now) => {
        const { laid } = room.tables;
        if (!laid || atOnce) return clearing(room, by);
        const until = Math.min(laid.until ?? Infinity, now + NOTICE_MS);
        return laid.soon ? [] : [{ type: 'backSoon', by, until }];
      },
    },
  },
  events: {
    tablesLaid: {
      version: 3,
      upcast: [
        (body) => ({ ...body, recorded: false }),
        ({ open, ...body }) => ({ ...body, files: [], limits: open ? OPEN_AT_TABLES : {}, sheet: '' }),
      ],
      hears: () => EVERYONE,
      evolve: (part, { tables, until, task, files, choose, paused, recorded, at }) => ({
        ...part,
        times: part.times + 1,
        laid: {
          ...{ tables, choose, task, files, until, paused, recorded, from: at },
          ...{ soon: false, aside: [], calls: [], words: [] },
        },
      }),
      notice: ({ choose, tables }) =>
        choose ? 'Choose a table.' : `The class is at ${countWords(tables.length, 'table')} now.`,
      chapter: ({ tables }) => `At ${countWords(tables.length, 'table')}`,
      log: ({ by, tables, task }, nameOf) =>
        `${nameOf(by)} sent the class to ${countWords(tables.length, 'table')}${task ? `: ${task}` : '.'}`,
    },
    seated: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, place }) =>
        part.laid ? change(part, seatedIn(part.laid, member, place)) : part,
      log: null,
    },
    tablesTold: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { at, by, text }) =>
        part.laid ? change(part, { words: [...part.laid.words, { at, by, text }] }) : part,
      notice: ({ by, text }, room) => `${nameIn(room, by)}: ${text}`,
      log: ({ by, text }, nameOf) => `${nameOf(by)} said to all tables: ${text}`,
    },
    helpCalled: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { place, on, at }) => {
        if (!part.laid) return part;
        const others = part.laid.calls.filter((c) => c.place !== place);
        return change(part, { calls: on ? [...others, { place, at }] : others });
      },
      log: null,
    },
    tableTimeSet: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { until }) => change(part, { until, soon: false }),
      notice: () => 'There is more time at the tables.',
      log: ({ by }, nameOf) => `${nameOf(by)} gave the tables more time.`,
    },
    backSoon: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { until }) => change(part, { until, soon: true }),
      notice: ({ until, at }) =>
        `Everybody is back in the class in ${countWords(Math.round((until - at) / 1000), 'second')}.`,
      log: null,
    },
    tablesCleared: {
      version: 1,
      hears: () => EVERYONE,
      evolve: cleared,
      notice: () => 'Everybody is back in the class.',
      chapter: () => 'Back from the tables',
      log: ({ by }, nameOf) =>
        by ? `${nameOf(by)} called everybody back from the tables.` : 'The time at the tables was over.',
    },
  },
  heeds: {
    // Who comes late has a seat as well.
    entered: (part, { member, place }) =>
      part.laid && place !== CLASS && seatOf(part.laid, member) !== place
        ? change(part, seatedIn(part.laid, member, place))
        : part,
    // A teacher who comes is who was asked for.
    wentTo: (part, { moves }, room) => {
      if (!part.laid?.calls.length) return part;
      const visited = moves.filter((m) => teaches(room.presence.people[m.member]?.role ?? 'student'));
      const calls = part.laid.calls.filter((c) => !visited.some((v) => v.to === c.place));
      return calls.length === part.laid.calls.length ? part : change(part, { calls });
    },
    dismissed: cleared,
  },
  due,
  seenBy: (part, { role }) => (teaches(role) ? part : { ...part, met: {} }),
});

import { rowOf, type Capability, type Permission } from '../../limits/capabilities';
import type { SomeLimits } from '../../limits/schema';
import { doneAtTables, tablesWords } from '../../limits/tables';
import { changeWords } from '../../limits/words';
import { isStanding } from '../../calendar/seriesKind';
import { teaches } from '../../roster/role';
import { noSettings, withValues, type Layer } from '../../settings/index';
import { timeLimits } from '../../writing/index';
import { concern, EVERYONE, type Audience, type Due } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { CLASS, placeOf } from '../kernel/place';
import { refuse } from '../kernel/refusals';
import { classLimit } from '../may';
import type { RoomState } from '../kernel/state';
import { nameIn } from '../words';
import type { Exception, LimitsState } from './state';

const LIVE: Layer = { name: 'live', settings: noSettings() };
const CUE: Layer = { name: 'cue', settings: noSettings() };

/** That somebody may do more is seen by all; that somebody may do less is for that one, and for those who teach. */
const heardOf = (state: Permission, member: string): Audience =>
  state === 'open' ? EVERYONE : { to: 'some', members: [member] };

/** The next exception that ends by itself. */
function nextEnding({ limits: { exceptions } }: RoomState): Due | null {
  let next: { at: number; member: string; capability: Capability; state: Permission } | null = null;
  for (const [member, own] of Object.entries(exceptions))
    for (const [capability, { until, state }] of Object.entries(own) as [Capability, Exception][])
      if (until !== null && (!next || until < next.at)) next = { at: until, member, capability, state };
  if (!next) return null;
  const { at, ...over } = next;
  return { at, events: [{ type: 'exceptionEnded', by: null, ...over }] };
}

/** The planned end, where writing has a rule of its own from then on. */
function lingering({ bell: { phase, times, kind }, limits: { time, layers } }: RoomState): Due | null {
  const begins = phase === 'live' && time === 'class' && times && kind && !isStanding(kind);
  if (!begins || !timeLimits(layers, 'linger')) return null;
  return { at: times.endsAt, events: [{ type: 'lingerBegan' }] };
}

const earlier = (a: Due | null, b: Due | null): Due | null => (!a || (b && b.at < a.at) ? b : a);

/** What is set in class, with some of it set anew; `undefined` takes back what was set. */
const inClass = (
  { live }: LimitsState,
  values: Partial<Record<Capability, Permission | undefined>>,
  by: string | null,
  at: number,
): Layer => ({ name: 'live', settings: withValues(live.settings, 'limits', values, by, at) });

/** What is open for a while is again as it was. */
const back = ({ lent }: LimitsState, by: string | null): RoomEvent[] =>
  lent ? [{ type: 'lentBack', by, capability: lent.capability }] : [];

/** The limits once a segment begins: what it says, and nothing of what was set in class where it says something. */
export function afterCue(part: LimitsState, said: SomeLimits, by: string | null, at: number): LimitsState {
  const silent = Object.fromEntries(Object.keys(said).map((c) => [c, undefined]));
  return {
    ...part,
    cue: { name: 'cue', settings: withValues(noSettings(), 'limits', said, by, at) },
    live: inClass(part, silent, null, at),
    lent: part.lent && part.lent.capability in said ? null : part.lent,
  };
}

/** What students may do: what was planned, what was set in class, and hush above it all. */
export const limits = concern({
  name: 'limits',
  empty: {
    layers: [],
    time: 'early',
    cue: CUE,
    exceptions: {},
    live: LIVE,
    lent: null,
    tables: null,
    hush: null,
  },
  commands: {
    setLimit: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { capability, state }) => {
        if (room.limits.hush) return refuse('hushed');
        if (!rowOf(capability).states.includes(state)) return refuse('no-sense');
        return classLimit(room, capability).state === state
          ? []
          : [{ type: 'limitSet', by, capability, state }];
      },
    },
    openFor: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { capability, seconds, answers }, now) => {
        if (room.limits.hush) return refuse('hushed');
        if (classLimit(room, capability).state === 'open') return [];
        const until = now + seconds * 1000;
        return [
          ...back(room.limits, by),
          { type: 'limitLent', by, capability, until, ...(answers ? { answers } : {}) },
        ];
      },
    },
    closeAgain: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => back(room.limits, by),
    },
    limitTables: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { limits, sheet = '' }) => {
        if (room.limits.hush) return refuse('hushed');
        if (!room.limits.tables) return refuse('no-tables');
        const place = placeOf(room, by);
        const said = { limits: doneAtTables(limits), sheet };
        const { own, all } = room.limits.tables;
        const now = own[place] ?? all;
        const same = now.sheet === sheet && JSON.stringify(now.limits) === JSON.stringify(said.limits);
        // Said of all, it is of those too that have their own.
        if (same && (place !== CLASS || !Object.keys(own).length)) return [];
        return [{ type: 'tablesLimited', by, place, ...said }];
      },
    },
    hush: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => (room.limits.hush ? [] : [{ type: 'hushed', by }]),
    },
    lift: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => (room.limits.hush ? [{ type: 'lifted', by }] : []),
    },
  },
  events: {
    limitSet: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { capability, state, by, at }) => ({
        ...part,
        live: inClass(part, { [capability]: state }, by, at),
        // What a teacher says now is said for good.
        lent: part.lent?.capability === capability ? null : part.lent,
      }),
      notice: ({ capability, state }) => changeWords(capability, state),
      log: ({ by, capability, state }, nameOf) => `${nameOf(by)}: ${changeWords(capability, state)}`,
    },
    limitLent: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { capability, until, answers, by, at }) => ({
        ...part,
        live: inClass(part, { [capability]: 'open' }, by, at),
        lent: {
          ...{ capability, until, before: part.live.settings.limits[capability] ?? null },
          ...{ answers: answers ?? null, answered: [] },
        },
      }),
      notice: ({ capability, until, at }) => {
        const { doing, verb } = rowOf(capability);
        return `${doing} ${verb} open for ${Math.round((until - at) / 1000)} seconds.`;
      },
      log: ({ by, capability, until, at }, nameOf) =>
        `${nameOf(by)}: ${rowOf(capability).doing} open for ${Math.round((until - at) / 1000)} seconds.`,
    },
    lentBack: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { capability }) => {
        const { before = null } = part.lent ?? {};
        const live = inClass(part, { [capability]: before?.value }, before?.by ?? null, before?.at ?? 0);
        return { ...part, live, lent: null };
      },
      notice: ({ capability }, room) => changeWords(capability, classLimit(room, capability).state),
      log: null,
    },
    lingerBegan: {
      version: 1,
      hears: () => EVERYONE,
      // What was set in class was for the class.
      evolve: (part) => {
        const said = Object.keys(timeLimits(part.layers, 'linger') ?? {});
        const silent = Object.fromEntries(said.map((c) => [c, undefined]));
        const lent = part.lent && said.includes(part.lent.capability) ? null : part.lent;
        return { ...part, time: 'linger', live: inClass(part, silent, null, 0), lent };
      },
      notice: (_event, room) =>
        `The planned end is here. ${changeWords('writeToClass', classLimit(room, 'writeToClass').state)}`,
      log: () => 'The planned end came.',
    },
    tablesLimited: {
      version: 1,
      hears: ({ place }) => (place === CLASS ? EVERYONE : { to: 'place', place }),
      evolve: (part, { place, limits, sheet, by, at }) => {
        if (!part.tables) return part;
        const said = { limits, sheet, by, at };
        const tables =
          place === CLASS
            ? { all: said, own: {} }
            : { ...part.tables, own: { ...part.tables.own, [place]: said } };
        return { ...part, tables };
      },
      notice: ({ place, limits, sheet }) => tablesWords({ limits, sheet }, place === CLASS),
      log: ({ by, place, limits, sheet }, nameOf) =>
        `${nameOf(by)}: ${tablesWords({ limits, sheet }, place === CLASS)}`,
    },
    hushed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { by, at }) => ({ ...part, hush: { by, at } }),
      notice: ({ by }, room) => `${nameIn(room, by)} has hushed the room. Everything is closed for a moment.`,
      log: ({ by }, nameOf) => `${nameOf(by)} hushed the room.`,
    },
    excepted: {
      version: 1,
      hears: ({ state, member }) => heardOf(state, member),
      evolve: (part, { member, capability, state, until, by, at }) => ({
        ...part,
        exceptions: {
          ...part.exceptions,
          [member]: { ...part.exceptions[member], [capability]: { state, until, by, at } },
        },
      }),
      log: ({ member, capability, state }, nameOf) =>
        `For ${nameOf(member)}: ${changeWords(capability, state)}`,
    },
    exceptionEnded: {
      version: 1,
      hears: ({ state, member }) => heardOf(state, member),
      evolve: (part, { member, capability }) => {
        const { [capability]: _over, ...others } = part.exceptions[member] ?? {};
        const { [member]: _own, ...rest } = part.exceptions;
        const exceptions = Object.keys(others).length ? { ...rest, [member]: others } : rest;
        return { ...part, exceptions };
      },
      log: ({ member, capability }, nameOf) =>
        `${nameOf(member)}’s exception is over: ${rowOf(capability).doing.toLowerCase()}.`,
    },
    lifted: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, hush: null }),
      notice: () => 'The hush is lifted. Everything is as it was before.',
      log: ({ by }, nameOf) => `${nameOf(by)} lifted the hush.`,
    },
  },
  due: (room) => {
    const { bell, limits: part } = room;
    if (bell.phase === 'dismissed') return null;
    const lent =
      part.lent && bell.phase === 'live' ? { at: part.lent.until, events: back(part, null) } : null;
    return earlier(earlier(lent, nextEnding(room)), lingering(room));
  },
  seenBy: (part, { member, role }) =>
    teaches(role)
      ? part
      : {
          ...part,
          exceptions: Object.fromEntries(
            Object.entries(part.exceptions).map(([id, own]) => [
              id,
              id === member
                ? own
                : Object.fromEntries(Object.entries(own).filter(([, e]) => e.state === 'open')),
            ]),
          ),
        },
  heeds: {
    opened: (part, { layers }) => ({ ...part, layers }),
    rangIn: (part) => ({ ...part, time: 'class' }),
    said: (part, { from, addressee, at }, room) => {
      const { lent } = part;
      const person = room.presence.people[from];
      if (lent?.capability !== 'writeToClass' || addressee.to !== 'class' || !person || teaches(person.role))
        return part;
      if (lent.answered.includes(from)) return part;
      const answered = [...lent.answered, from];
      // All that were waited for: its time is over.
      const until = lent.answers !== null && answered.length >= lent.answers ? at : lent.until;
      return { ...part, lent: { ...lent, answered, until } };
    },
    tablesLaid: (part, { limits, sheet, by, at }) => ({
      ...part,
      tables: { all: { limits, sheet, by, at }, own: {} },
    }),
    tablesCleared: (part) => ({ ...part, tables: null }),
    dismissed: (part) => (part.tables ? { ...part, tables: null } : part),
    // It ends later, or sooner: whether it is over is seen anew.
    replanned: (part) => (part.time === 'linger' ? { ...part, time: 'class' } : part),
    // What was set in class gives way to the next segment, where that says something.
    cued: (part, { segment, by, at }) => afterCue(part, segment.limits, by, at),
    settingsChanged: (part, { layer, settings }) => ({
      ...part,
      layers: part.layers.map((l) => (l.name === layer ? { name: layer, settings } : l)),
    }),
  },
});

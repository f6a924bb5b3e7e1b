import { rowOf, type Capability, type Permission } from '../../limits/capabilities';
import { changeWords } from '../../limits/words';
import { noSettings, withValues, type Layer } from '../../settings/index';
import { concern, EVERYONE } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse } from '../kernel/refusals';
import { classLimit } from '../may';
import { nameIn } from '../words';
import type { LimitsState } from './state';

const LIVE: Layer = { name: 'live', settings: noSettings() };

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

/** What students may do: what was planned, what was set in class, and hush above it all. */
export const limits = concern({
  name: 'limits',
  empty: { layers: [], live: LIVE, lent: null, hush: null },
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
      decide: (room, { member: by }, { capability, seconds }, now) => {
        if (room.limits.hush) return refuse('hushed');
        if (classLimit(room, capability).state === 'open') return [];
        return [...back(room.limits, by), { type: 'limitLent', by, capability, until: now + seconds * 1000 }];
      },
    },
    closeAgain: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => back(room.limits, by),
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
      evolve: (part, { capability, until, by, at }) => ({
        ...part,
        live: inClass(part, { [capability]: 'open' }, by, at),
        lent: { capability, until, before: part.live.settings.limits[capability] ?? null },
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
    hushed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { by, at }) => ({ ...part, hush: { by, at } }),
      notice: ({ by }, room) => `${nameIn(room, by)} has hushed the room. Everything is closed for a moment.`,
      log: ({ by }, nameOf) => `${nameOf(by)} hushed the room.`,
    },
    lifted: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, hush: null }),
      notice: () => 'The hush is lifted. Everything is as it was before.',
      log: ({ by }, nameOf) => `${nameOf(by)} lifted the hush.`,
    },
  },
  due: ({ bell, limits: part }) =>
    part.lent && bell.phase === 'live' ? { at: part.lent.until, events: back(part, null) } : null,
  heeds: {
    opened: (part, { layers }) => ({ ...part, layers }),
    settingsChanged: (part, { layer, settings }) => ({
      ...part,
      layers: part.layers.map((l) => (l.name === layer ? { name: layer, settings } : l)),
    }),
  },
});

import { rowOf } from '../../limits/capabilities';
import { changeWords } from '../../limits/words';
import { noSettings, withValues, type Layer } from '../../settings/index';
import { concern, EVERYONE } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import { classLimit } from '../may';
import { nameIn } from '../words';

const LIVE: Layer = { name: 'live', settings: noSettings() };

/** What students may do: what was planned, what was set in class, and hush above it all. */
export const limits = concern({
  name: 'limits',
  empty: { layers: [], live: LIVE, hush: null },
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
        live: {
          name: 'live',
          settings: withValues(part.live.settings, 'limits', { [capability]: state }, by, at),
        },
      }),
      notice: ({ capability, state }) => changeWords(capability, state),
      log: ({ by, capability, state }, nameOf) => `${nameOf(by)}: ${changeWords(capability, state)}`,
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
  heeds: {
    opened: (part, { layers }) => ({ ...part, layers }),
    settingsChanged: (part, { layer, settings }) => ({
      ...part,
      layers: part.layers.map((l) => (l.name === layer ? { name: layer, settings } : l)),
    }),
  },
});

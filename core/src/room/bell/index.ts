import type { LayerName } from '../../settings/index';
import { concern, EVERYONE } from '../kernel/concern';
import { beginsWithRingIn } from '../recording/index';
import { cueEvents } from '../runSheet/index';
import { nameIn } from '../words';

const whose = (layer: LayerName, name: string | null) =>
  name ?? (layer === 'college' ? 'The college' : 'A teacher');
const placeWords = (layer: LayerName) => (layer === 'college' ? 'every course' : `the ${layer}`);

/** A class's beginning and end: the room as it opens, ring-in, dismissal, and what was planned of it. */
export const bell = concern({
  name: 'bell',
  empty: { phase: 'waiting', rangInAt: null, kind: null, times: null },
  commands: {
    ringIn: {
      who: 'teaching',
      phase: 'any',
      decide: (room, actor, _command, now) => {
        if (room.bell.phase === 'live') return [];
        const begins = beginsWithRingIn(room, now);
        return [
          { type: 'rangIn', by: actor.member },
          ...(begins ? [{ type: 'recordingStarted' as const, by: null }] : []),
          ...cueEvents(room, actor.member, 0, begins ? 'on' : room.recording.state),
        ];
      },
    },
    dismiss: {
      who: 'teaching',
      phase: 'live',
      decide: (_room, actor) => [{ type: 'dismissed', by: actor.member }],
    },
  },
  events: {
    opened: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { kind, times }) => ({ ...part, kind, times }),
      log: () => 'The room opened.',
    },
    settingsChanged: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => part,
      notice: ({ by, layer }, room) =>
        `${whose(layer, by && nameIn(room, by))} has changed what holds for ${placeWords(layer)}. What was set in class stays.`,
      log: ({ by, layer }, nameOf) =>
        `${whose(layer, by && nameOf(by))} changed the settings of ${placeWords(layer)}.`,
    },
    replanned: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { times }) => ({ ...part, times }),
      notice: () => 'The session has been given other times.',
      log: () => 'The session was given other times.',
    },
    rangIn: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { at }) => ({ ...part, phase: 'live', rangInAt: at }),
      notice: ({ by }, room) => (by ? `${nameIn(room, by)} has rung in. Class begins.` : 'The room is open.'),
      log: ({ by }, nameOf) => (by ? `${nameOf(by)} rang in.` : 'The room began.'),
    },
    dismissed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, phase: 'dismissed' }),
      log: ({ by }, nameOf) => (by ? `${nameOf(by)} dismissed the class.` : 'The room closed by itself.'),
    },
    interrupted: {
      version: 1,
      hears: () => EVERYONE,
      // The server was away, the room was not: everyone is where they were, and who does not return leaves later.
      evolve: (part) => part,
      log: () => 'The server had been away.',
    },
  },
});

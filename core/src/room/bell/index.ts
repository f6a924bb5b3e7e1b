import type { LayerName } from '../../settings/index';
import { countWords } from '../../calendar/words';
import { teaches } from '../../roster/role';
import { concern, EVERYONE } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import { beginsWithRingIn } from '../recording/index';
import { cueEvents } from '../runSheet/index';
import { nameIn } from '../words';

const whose = (layer: LayerName, name: string | null) =>
  name ?? (layer === 'college' ? 'The college' : 'A teacher');
const placeWords = (layer: LayerName) => (layer === 'college' ? 'every course' : `the ${layer}`);

/** A class's beginning and end: the room as it opens, ring-in, dismissal, and what was planned of it. */
export const bell = concern({
  name: 'bell',
  empty: { phase: 'waiting', rangInAt: null, overAt: null, kind: null, times: null },
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
    letGo: {
      who: 'teaching',
      phase: 'live',
      decide: ({ bell: { overAt }, recording }, { member: by }, { on }) =>
        (overAt !== null) === on
          ? []
          : [
              // What is asked when the others are gone is nobody else's.
              ...(on && recording.state === 'on' ? [{ type: 'recordingPaused' as const, by }] : []),
              { type: 'letGo', by, on },
            ],
    },
    handOver: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { to }) => {
        if (to === by) return refuse('self-over');
        const other = room.presence.people[to];
        if (!other?.present) return refuse('not-here');
        return teaches(other.role) ? [{ type: 'handedOver', by, to }] : refuse('not-teaching');
      },
    },
    tellTimeLeft: {
      who: 'teaching',
      phase: 'live',
      decide: (_room, { member: by }, { minutes }) => [{ type: 'timeLeftTold', by, minutes }],
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
    letGo: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { at, on }) => ({ ...part, overAt: on ? at : null }),
      notice: ({ on }) => (on ? 'Class is over. Whoever has a question can stay.' : 'The class goes on.'),
      log: ({ by, on }, nameOf) =>
        on
          ? `${nameOf(by)} ended the class, and stayed for questions.`
          : `${nameOf(by)} let the class go on.`,
    },
    handedOver: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => part,
      notice: ({ by, to }, room) => `${nameIn(room, by)} hands over to ${nameIn(room, to)}.`,
      log: ({ by, to }, nameOf) => `${nameOf(by)} handed over to ${nameOf(to)}.`,
    },
    timeLeftTold: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => part,
      notice: ({ minutes }) => `${countWords(minutes, 'minute')} left.`,
      log: ({ by, minutes }, nameOf) => `${nameOf(by)} said that ${countWords(minutes, 'minute')} are left.`,
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

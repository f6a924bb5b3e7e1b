import { recordsItself } from '../../recording/plan';
import { concern, EVERYONE } from '../kernel/concern';
import { refuse } from '../kernel/refusals';

/** What is recorded of the class, and that everybody is told. */
export const recording = concern({
  name: 'recording',
  empty: { state: 'off', automatic: false },
  commands: {
    pauseRecording: {
      who: 'teaching',
      phase: 'live',
      decide: ({ recording: { state } }, { member: by }) =>
        state === 'on'
          ? [{ type: 'recordingPaused', by }]
          : state === 'paused'
            ? []
            : refuse('not-recording'),
    },
    resumeRecording: {
      who: 'teaching',
      phase: 'live',
      decide: ({ recording: { state } }, { member: by }) =>
        state === 'paused' ? [{ type: 'recordingResumed', by }] : [],
    },
  },
  events: {
    recordingStarted: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, state: 'on' }),
      notice: () => 'This class is being recorded.',
      log: () => 'The recording began.',
    },
    recordingPaused: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, state: 'paused' }),
      notice: () => 'The recording is paused.',
      log: ({ by }, nameOf) => `${by ? nameOf(by) : 'The run sheet'} paused the recording.`,
    },
    recordingResumed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, state: 'on' }),
      notice: () => 'The recording goes on.',
      chapter: () => 'After the pause',
      log: ({ by }, nameOf) => `${by ? nameOf(by) : 'The run sheet'} let the recording go on.`,
    },
  },
  heeds: {
    opened: (part, { kind, layers }) => ({ ...part, automatic: recordsItself(kind, layers) }),
    settingsChanged: (part, _event, room) => ({
      ...part,
      automatic: room.bell.kind ? recordsItself(room.bell.kind, room.limits.layers) : part.automatic,
    }),
    dismissed: (part) => ({ ...part, state: 'off' }),
  },
});

import { recordsItself } from '../../recording/plan';
import { teaches } from '../../roster/role';
import { concern, EVERYONE } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';

const answerOf = (agrees: boolean) => (agrees ? 'agreed' : 'withheld');

/** Somebody whose voice, picture and words are not kept. */
export const isWithheld = ({ recording }: Pick<RoomState, 'recording'>, member: string): boolean =>
  recording.answers[member] === 'withheld';

/** What is recorded of the class, and that everybody is told. */
export const recording = concern({
  name: 'recording',
  empty: { state: 'off', automatic: false, answers: {} },
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
    answerRecording: {
      who: 'anyone',
      phase: 'any',
      decide: ({ recording: { answers } }, { member }, { agrees }) =>
        answers[member] === answerOf(agrees) ? [] : [{ type: 'recordingAnswered', member, agrees }],
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
    recordingAnswered: {
      version: 1,
      hears: ({ member }) => ({ to: 'some', members: [member] }),
      evolve: (part, { member, agrees }) => ({
        ...part,
        answers: { ...part.answers, [member]: answerOf(agrees) },
      }),
      log: ({ member, agrees }, nameOf) =>
        `${nameOf(member)} ${agrees ? 'agrees' : 'does not agree'} to be in the recording.`,
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
  seenBy: (part, { member, role }) => {
    if (teaches(role)) return part;
    const own = part.answers[member];
    return { ...part, answers: own ? { [member]: own } : {} };
  },
});

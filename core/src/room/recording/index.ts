import { recordedHow } from '../../recording/plan';
import { keptWith, type Kept } from '../../recording/space';
import { teaches } from '../../roster/role';
import { concern, EVERYONE, type Due } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import type { RoomEvent } from '../kernel/messages';
import type { RoomState } from '../kernel/state';

const answerOf = (agrees: boolean) => (agrees ? 'agreed' : 'withheld');

/** Somebody whose voice, picture and words are not kept. */
export const isWithheld = ({ recording }: Pick<RoomState, 'recording'>, member: string): boolean =>
  recording.answers[member] === 'withheld';

const KEPT_WORDS: Record<Kept, string> = {
  all: 'There is room on the disk again: all of the class is recorded.',
  sound: 'The disk is nearly full: only the sound is recorded from here on.',
  nothing: 'The disk is full: nothing is recorded for now.',
};

/** Whether ring-in at an instant begins it: also where the segment that would does not exist. */
export const beginsWithRingIn = ({ bell, recording, runSheet }: RoomState, now: number): boolean => {
  const { automatic, begins } = recording;
  if (!automatic || begins === 'hand') return false;
  if (begins === 'start') return !bell.times || now >= bell.times.startsAt;
  return begins === 'ringIn' || begins > runSheet.segments.length;
};

/** Whether a segment begins it. */
export const beginsWithSegment = ({ automatic, begins }: RoomState['recording'], index: number): boolean =>
  automatic && typeof begins === 'number' && index + 1 >= begins;

/** What the planned times do by themselves. */
function planned({ bell: { phase, times, rangInAt }, recording }: RoomState): Due | null {
  const { state, automatic, begins, ends, over } = recording;
  if (phase !== 'live' || !automatic || !times || rangInAt === null) return null;
  if (state === 'off' && begins === 'start' && rangInAt < times.startsAt)
    return { at: times.startsAt, events: [{ type: 'recordingStarted', by: null }] };
  if (state === 'on' && ends === 'end' && !over && rangInAt < times.endsAt)
    return { at: times.endsAt, events: [{ type: 'recordingPaused', by: null }] };
  return null;
}

/** What is recorded of the class, and that everybody is told. */
export const recording = concern({
  name: 'recording',
  empty: {
    ...{ state: 'off', kept: 'all', heldUp: false, began: false, over: false },
    ...{ automatic: false, begins: 'ringIn', ends: 'dismissal', cameras: false, tables: false },
    answers: {},
  },
  commands: {
    startRecording: {
      who: 'teaching',
      phase: 'live',
      decide: ({ recording: { state, automatic, kept } }, { member: by }) => {
        if (state !== 'off') return [];
        if (!automatic) return refuse('not-recorded');
        return kept === 'nothing' ? refuse('no-room') : [{ type: 'recordingStarted', by }];
      },
    },
    pauseRecording: {
      who: 'teaching',
      phase: 'live',
      decide: ({ recording: { state, heldUp } }, { member: by }) =>
        state === 'on' || heldUp
          ? [{ type: 'recordingPaused', by }]
          : state === 'paused'
            ? []
            : refuse('not-recording'),
    },
    resumeRecording: {
      who: 'teaching',
      phase: 'live',
      decide: ({ recording: { state, kept } }, { member: by }) =>
        kept === 'nothing' ? refuse('no-room') : state === 'paused' ? [{ type: 'recordingResumed', by }] : [],
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
      evolve: (part) => ({ ...part, state: 'on', began: true }),
      notice: () => 'This class is being recorded.',
      log: ({ by }, nameOf) => (by ? `${nameOf(by)} began the recording.` : 'The recording began.'),
    },
    recordingPaused: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { by, at }, { bell: { times } }) => ({
        ...part,
        state: 'paused',
        heldUp: by === null && part.kept === 'nothing',
        over: part.over || (by === null && times !== null && at >= times.endsAt),
      }),
      notice: () => 'The recording is paused.',
      log: ({ by }, nameOf) => (by ? `${nameOf(by)} paused the recording.` : 'The recording was paused.'),
    },
    recordingResumed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, state: 'on', heldUp: false }),
      notice: () => 'The recording goes on.',
      chapter: () => 'After the pause',
      log: ({ by }, nameOf) => (by ? `${nameOf(by)} let the recording go on.` : 'The recording went on.'),
    },
    recordingNarrowed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { to }) => ({ ...part, kept: to }),
      notice: ({ to }) => KEPT_WORDS[to],
      log: ({ to }) => KEPT_WORDS[to],
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
    opened: (part, { kind, layers }) => ({ ...part, ...recordedHow(kind, layers) }),
    settingsChanged: (part, _event, room) => ({
      ...part,
      ...(room.bell.kind ? recordedHow(room.bell.kind, room.limits.layers) : {}),
    }),
    dismissed: (part) => ({ ...part, state: 'off', kept: 'all', heldUp: false, over: false }),
  },
  due: planned,
  seenBy: (part, { member, role }) => {
    if (teaches(role)) return part;
    const own = part.answers[member];
    return { ...part, answers: own ? { [member]: own } : {} };
  },
});

/** What is to happen in a class that is on, with so many bytes free on the disk. */
export function narrowedBy({ bell, recording, runSheet }: RoomState, free: number): RoomEvent[] {
  const { kept, state, heldUp } = recording;
  if (bell.phase !== 'live' || state === 'off') return [];
  const to = keptWith(free, kept);
  const planned = runSheet.at === null ? undefined : runSheet.segments[runSheet.at]?.recording;
  return [
    ...(to === kept ? [] : [{ type: 'recordingNarrowed' as const, to }]),
    ...(to === 'nothing' && state === 'on' ? [{ type: 'recordingPaused' as const, by: null }] : []),
    // Not into a segment that is not to be recorded.
    ...(to !== 'nothing' && heldUp && planned !== 'paused'
      ? [{ type: 'recordingResumed' as const, by: null }]
      : []),
  ];
}

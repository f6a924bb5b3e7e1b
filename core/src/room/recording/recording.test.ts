import fc from 'fast-check';
import { KEPT, keptWith, type RecordingPlan } from '../../recording/index';
import { noSettings, withValues, type Segment } from '../../settings/index';
import { ana, entry, lecture, LECTURE, maren, opening, TestRoom } from '../../testing/index';
import { dueBy, narrowedBy, type RoomEvent } from '../index';

const GB = 1e9;
/** A lecture that is being recorded; looks at the disk, as the server does. */
function recorded() {
  const room = lecture().happen({ type: 'recordingStarted', by: null });
  const look = (free: number): RoomEvent['type'][] => {
    const events = narrowedBy(room.state, free);
    room.happen(...events);
    return events.map((e) => e.type);
  };
  return { room, look };
}

test('as the disk fills pictures are given up first, then the sound; with room again it goes on by itself', () => {
  const { room, look } = recorded();
  expect(look(5 * GB)).toEqual([]);
  expect(look(0.9 * GB)).toEqual(['recordingNarrowed']);
  expect(room.state.recording).toMatchObject({ state: 'on', kept: 'sound' });
  expect(look(0.1 * GB)).toEqual(['recordingNarrowed', 'recordingPaused']);
  expect(room.state.notice!.text).toMatch(/paused/);
  expect(room.refusal(maren, { type: 'resumeRecording' })!.code).toBe('no-room');
  expect(room.refusal(ana, { type: 'resumeRecording' })!.code).toBe('teachers-only');
  expect(look(0.1 * GB)).toEqual([]);
  expect(look(0.5 * GB)).toEqual(['recordingNarrowed', 'recordingResumed']);
  expect(room.state.recording).toMatchObject({ state: 'on', kept: 'sound', heldUp: false });
  expect(look(3 * GB)).toEqual(['recordingNarrowed']);
  expect(room.state.recording.kept).toBe('all');
});

test('what a teacher paused does not go on because there is room', () => {
  const { room, look } = recorded();
  room.do(maren, { type: 'pauseRecording' });
  expect(look(0)).toEqual(['recordingNarrowed']);
  expect(look(3 * GB)).toEqual(['recordingNarrowed']);
  expect(room.state.recording.state).toBe('paused');
  room.do(maren, { type: 'resumeRecording' });
  look(0);
  // Paused by the disk, and now by a teacher too.
  room.do(maren, { type: 'pauseRecording' });
  expect(look(3 * GB)).toEqual(['recordingNarrowed']);
  room.happen({ type: 'dismissed', by: 'maren' });
  expect(look(0)).toEqual([]);
});

test('what was given up for want of room does not come back for a little more', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 3 * GB, noNaN: true })), (looks) => {
      const { room, look } = recorded();
      for (const free of looks) {
        const before = room.state.recording.kept;
        look(free);
        const { kept, state } = room.state.recording;
        expect(state === 'on').toBe(kept !== 'nothing');
        expect(keptWith(free, kept)).toBe(kept);
        if (KEPT.indexOf(kept) > KEPT.indexOf(before)) expect(look(free * 1.2)).toEqual([]);
      }
    }),
  );
});

const MINUTE = 60_000;
const segment = (title: string): Segment => ({
  ...{ title, minutes: 20, sheet: null, limits: {}, recording: null, note: '' },
});

/** A class with a run sheet of three, whose recording is planned so; the teacher is there, a minute before its start. */
function plannedTo(plan: Pick<RecordingPlan, 'automatic' | 'begins' | 'ends'>) {
  const settings = withValues(noSettings(), 'recording', plan, 'maren', 1);
  const segments = ['Welcome', 'Lecture', 'Questions'].map(segment);
  const course = withValues(settings, 'runSheet', { segments }, 'maren', 1);
  const times = { ...LECTURE, startsAt: MINUTE, endsAt: 81 * MINUTE };
  const room = new TestRoom().happen(
    opening([{ name: 'course', settings: course }], { times }),
    entry('maren', 'Maren Oduya', 'teacher'),
  );
  return {
    room,
    state: () => room.state.recording.state,
    due: () => dueBy(room.state, Infinity).filter((e) => e.type.startsWith('recording')),
  };
}

test.each([
  ['ring-in', { automatic: true }, 'on'],
  ['the planned start', { automatic: true, begins: 'start' as const }, 'off'],
  ['its second segment', { automatic: true, begins: 2 }, 'off'],
  ['a segment that it does not have', { automatic: true, begins: 9 }, 'on'],
  ['a hand', { automatic: true, begins: 'hand' as const }, 'off'],
  ['nothing', { automatic: false, begins: 'start' as const }, 'off'],
])('a recording that is to begin with %s is so after ring-in', (_name, plan, expected) => {
  const { room, state } = plannedTo(plan);
  room.do(maren, { type: 'ringIn' });
  expect(state()).toBe(expected);
  expect(room.refusal(maren, { type: 'startRecording' })?.code).toBe(
    plan.automatic ? undefined : 'not-recorded',
  );
  if (plan.automatic) room.do(maren, { type: 'startRecording' });
  expect(state()).toBe(plan.automatic ? 'on' : 'off');
});

test('it begins with the planned start, or the segment, by itself; rung in late, at once', () => {
  const early = plannedTo({ automatic: true, begins: 'start' });
  early.room.do(maren, { type: 'ringIn' });
  expect(early.due()).toEqual([{ type: 'recordingStarted', by: null }]);
  early.room.happen(...early.due());
  expect([early.state(), early.due()]).toEqual(['on', []]);
  const late = plannedTo({ automatic: true, begins: 'start' });
  late.room.later = 5 * MINUTE;
  late.room.do(maren, { type: 'ringIn' });
  expect(late.state()).toBe('on');
  const second = plannedTo({ automatic: true, begins: 2 });
  second.room.do(maren, { type: 'ringIn' });
  second.room.do(maren, { type: 'cue', index: 1 });
  expect(second.state()).toBe('on');
});

test('it ends with the planned end, once: what a teacher lets go on stays', () => {
  const { room, state, due } = plannedTo({ automatic: true, ends: 'end' });
  room.do(maren, { type: 'ringIn' });
  expect(due()).toEqual([{ type: 'recordingPaused', by: null }]);
  room.later = 81 * MINUTE;
  room.happen(...due());
  expect([state(), due()]).toEqual(['paused', []]);
  room.do(maren, { type: 'resumeRecording' });
  expect([state(), due()]).toEqual(['on', []]);
});

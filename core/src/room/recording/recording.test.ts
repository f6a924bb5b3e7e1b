import fc from 'fast-check';
import { KEPT, keptWith } from '../../recording/index';
import { ana, lecture, maren } from '../../testing/index';
import { narrowedBy, type RoomEvent } from '../index';

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

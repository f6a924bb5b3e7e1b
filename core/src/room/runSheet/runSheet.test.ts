import fc from 'fast-check';
import { noSettings, withValues, type Layer, type Segment } from '../../settings/index';
import { ana, entry, maren, opening, TestRoom } from '../../testing/index';
import { classLimit, cueEvents, dueBy, proposals, segmentEnds, sends, type CuedSegment } from '../index';

const MINUTE = 60_000;
const part = (title: string, minutes: number, more: Partial<Segment> = {}): Segment => ({
  ...{ title, minutes, sheet: null, limits: {}, recording: null, note: 'For teachers.' },
  ...more,
});
const SHEET = [
  part('Welcome', 5, { limits: { writeToClass: 'open' } }),
  part('Lecture', 35, { limits: { writeToClass: 'closed', speak: 'byHand' }, recording: 'paused' }),
  part('Discussion', 20, { limits: { speak: 'open' }, recording: 'on' }),
];
const layer = (name: Layer['name'], segments: Segment[]): Layer => ({
  name,
  settings: withValues(noSettings(), 'runSheet', { segments }, 'maren', 1),
});

function classOn(layers = [layer('series', SHEET)], automatic = false) {
  const course: Layer = {
    name: 'course',
    settings: withValues(noSettings(), 'recording', { automatic }, 'maren', 1),
  };
  const room = new TestRoom().happen(
    opening([course, ...layers]),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana'),
  );
  room.do(maren, { type: 'ringIn' });
  return room;
}

test('ring-in begins the first part, the session’s own run sheet before its series’, and no note is in the room', () => {
  const room = classOn([layer('series', SHEET), layer('session', [part('Alone', 10)])]);
  expect(room.state.runSheet.segments.map((s) => s.title)).toEqual(['Alone']);
  expect(room.state.runSheet.at).toBe(0);
  expect(JSON.stringify(room.state.runSheet)).not.toContain('For teachers');
});

test('a cue brings its limits, and what was set in class gives way where it says something', () => {
  const room = classOn();
  room.do(maren, { type: 'setLimit', capability: 'writeToClass', state: 'byHand' });
  room.do(maren, { type: 'setLimit', capability: 'camera', state: 'closed' });
  room.do(maren, { type: 'cue', index: 1 });
  expect(classLimit(room.state, 'writeToClass')).toMatchObject({
    state: 'closed',
    because: { layer: 'cue', by: 'maren' },
  });
  expect(classLimit(room.state, 'camera').because.layer).toBe('live');
  // Whom the next part says nothing of, its own place says again.
  room.do(maren, { type: 'cue', index: 2 });
  expect(classLimit(room.state, 'writeToClass').because.layer).toBe('college');
  expect(room.refusal(maren, { type: 'cue', index: 3 })!.code).toBe('no-segment');
});

test('what is otherwise is said in one line: two by name, of more how many, nothing that stays as it was', () => {
  const room = classOn();
  expect(room.state.notice!.text).toBe('Welcome, 5 minutes.');
  room.do(maren, { type: 'cue', index: 1 });
  expect(room.state.notice!.text).toBe('Lecture, 35 minutes. Writing to the class is now closed.');
  room.do(maren, { type: 'cue', index: 2 });
  expect(room.state.notice!.text).toBe(
    'Discussion, 20 minutes. Speaking is now open. Writing to the class is now open.',
  );
  const all = classOn([
    layer('series', [
      part('Quiet', 1, {
        limits: { speak: 'closed', camera: 'closed', writeToClass: 'closed', writeToTeachers: 'closed' },
      }),
    ]),
  ]);
  expect(all.state.notice!.text).toBe(
    'Quiet, 1 minute. Speaking is now closed. Cameras are now closed. 2 more limits are otherwise.',
  );
});

test('a microphone that a part closes is off, is not sent, and does not come on by itself with the next part', () => {
  const room = classOn([layer('series', [SHEET[2]!, SHEET[1]!, SHEET[2]!])]);
  room.do(ana, { type: 'microphone', on: true });
  expect(sends(room.state, 'ana', 'sound')).toBe(true);
  room.do(maren, { type: 'cue', index: 1 });
  expect([room.state.desk.microphone, sends(room.state, 'ana', 'sound')]).toEqual([{}, false]);
  room.do(maren, { type: 'cue', index: 2 });
  expect([room.state.desk.microphone, sends(room.state, 'ana', 'sound')]).toEqual([{}, false]);
});

test('the recording goes with the parts: the first one too, and only where one is on', () => {
  const room = classOn([layer('series', [SHEET[1]!, SHEET[2]!])], true);
  expect(room.state.recording.state).toBe('paused');
  room.do(maren, { type: 'cue', index: 1 });
  expect(room.state.recording.state).toBe('on');
  const without = classOn();
  without.do(maren, { type: 'cue', index: 1 });
  expect(without.state.recording.state).toBe('off');
});

test('by the clock the next part begins when this one has had its minutes, the last one stays, and a hold holds', () => {
  const room = classOn();
  const ends = segmentEnds(room.state.runSheet)!;
  expect(ends).toBe(room.state.runSheet.since! + 5 * MINUTE);
  expect(dueBy(room.state, ends)).toEqual([]);
  room.do(maren, { type: 'goByClock', on: true });
  expect(dueBy(room.state, ends - 1)).toEqual([]);
  room.later = 5 * MINUTE;
  room.happen(...dueBy(room.state, ends));
  expect(room.state.runSheet).toMatchObject({ at: 1, byClock: true });
  expect(room.state.runSheet.held).toMatchObject([
    { title: 'Welcome', minutes: 5, until: room.state.runSheet.since },
    { title: 'Lecture', until: null },
  ]);
  room.do(maren, { type: 'goByClock', on: false });
  expect(dueBy(room.state, ends + 99 * MINUTE)).toEqual([]);
  room.do(maren, { type: 'cue', index: 2 });
  room.do(maren, { type: 'goByClock', on: true });
  expect(dueBy(room.state, ends + 999 * MINUTE)).toEqual([]);
});

test('what is left is planned anew in class: another order, other minutes, fewer; nothing that was held', () => {
  const room = classOn();
  expect(room.do(maren, { type: 'planLeft', left: [{ index: 2, minutes: 12 }] }).ok).toBe(true);
  expect(room.state.runSheet.segments.map((s) => [s.title, s.minutes])).toEqual([
    ['Welcome', 5],
    ['Discussion', 12],
  ]);
  const again = (left: { index: number; minutes: number }[]) =>
    room.refusal(maren, { type: 'planLeft', left })?.code;
  expect(again([{ index: 0, minutes: 5 }])).toBe('no-segment');
  expect(
    again([
      { index: 1, minutes: 5 },
      { index: 1, minutes: 5 },
    ]),
  ).toBe('no-segment');
  expect(room.refusal(ana, { type: 'planLeft', left: [] })!.code).toBe('teachers-only');
  expect(cueEvents(room.state, null, 7)).toEqual([]);
});

test('proposals fit what is left, in whole minutes: each its share and none without a minute, or the last ones dropped', () => {
  const segments = fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(
      segments,
      fc.integer({ min: -1, max: 5 }),
      fc.integer({ min: 0, max: 300 }),
      (all, at, have) => {
        const sheet = all.map((minutes, i): CuedSegment => ({
          ...{ title: `${i}`, minutes, limits: {}, recording: null },
        }));
        const coming = all.slice(at + 1);
        const wanted = coming.reduce((a, b) => a + b, 0);
        const found = proposals(sheet, at, have);
        if (wanted <= have) return expect(found).toEqual([]);
        for (const { way, left } of found) {
          expect(left.reduce((a, l) => a + l.minutes, 0)).toBe(have);
          for (const l of left) {
            expect(l.minutes).toBeGreaterThan(0);
            expect(l.index).toBeGreaterThan(at);
          }
          if (way === 'shrink') expect(left).toHaveLength(coming.length);
          else for (const l of left.slice(0, -1)) expect(l.minutes).toBe(all[l.index]);
        }
        return expect(found.map((p) => p.way)).toEqual(have < coming.length ? ['drop'] : ['shrink', 'drop']);
      },
    ),
  );
});

test('a part whose time is shown is counted down before everybody, and its time goes with it', () => {
  const room = classOn([layer('series', [part('Welcome', 5, { timed: true }), part('Lecture', 35)])]);
  expect(room.state.timer.on).toMatchObject({ what: 'Welcome', length: 5 * MINUTE });
  room.do(maren, { type: 'cue', index: 1 });
  expect(room.state.timer.on).toBeNull();
  room.do(maren, { type: 'startTimer', seconds: 60, what: 'Think' });
  room.do(maren, { type: 'cue', index: 0 });
  expect(room.state.timer.on?.what).toBe('Welcome');
  room.do(maren, { type: 'startTimer', seconds: 60, what: 'Think' });
  room.do(maren, { type: 'cue', index: 1 });
  // What a teacher began stays.
  expect(room.state.timer.on?.what).toBe('Think');
});

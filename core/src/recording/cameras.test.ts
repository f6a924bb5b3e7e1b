import { noSettings, withValues, type Layer } from '../settings/index';
import { ana, ben, entry, maren, opening, TestRoom } from '../testing/index';
import { camerasKept, sawOthers } from './index';

/** A plan that keeps students' cameras, or does not, and closes what it says. */
const plan = (recording: object, limits: object = {}): Layer => {
  const values = { automatic: true, keepUntil: '2027-03-01', ...recording };
  const settings = withValues(noSettings(), 'recording', values, 'maren', 1);
  return { name: 'course', settings: withValues(settings, 'limits', limits, 'maren', 1) };
};
const CAMERAS = plan({ studentsCameras: true });

/** A class with Ana and Ben; Ana agrees to be in its recording. A second for each event. */
function classWith(layer: Layer) {
  const room = new TestRoom().happen(
    opening([layer]),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana'),
    entry('ben'),
  );
  room.do(maren, { type: 'ringIn' });
  room.do(ana, { type: 'answerRecording', agrees: true });
  return room;
}
/** Somebody has the floor for so long, ms; gives from when until when. */
function floorFor(room: TestRoom, member: string, ms: number) {
  const from = room.now;
  room.do(maren, { type: 'giveFloor', member });
  room.later += ms - 1000;
  const until = room.now;
  room.do(maren, { type: 'takeFloor' });
  return { from, until };
}
const WHOLE = [{ from: 0, until: 1e7 }];

test('the camera of a student who agreed is kept while they have the floor, and at no other time', () => {
  const room = classWith(CAMERAS);
  const first = floorFor(room, 'ana', 20_000);
  // Who said nothing is not seen.
  floorFor(room, 'ben', 20_000);
  const second = floorFor(room, 'ana', 5000);
  expect(camerasKept(room.events, WHOLE)).toEqual(new Map([['ana', [first, second]]]));
  // In ms of what was recorded: this began in the middle of the first, and was paused before the second.
  const parts = [
    { from: first.from + 5000, until: second.from - 1000 },
    { from: second.from + 2000, until: 1e7 },
  ];
  const met = parts[0]!.until - parts[0]!.from;
  expect(camerasKept(room.events, parts)).toEqual(
    new Map([
      [
        'ana',
        [
          { from: 0, until: 15_000 },
          { from: met, until: met + 3000 },
        ],
      ],
    ]),
  );
});

test('a floor that is held when all ends is kept until then; one of a moment is not', () => {
  const room = classWith(CAMERAS);
  floorFor(room, 'ana', 500);
  expect(camerasKept(room.events, WHOLE)).toEqual(new Map());
  const from = room.now;
  room.do(maren, { type: 'giveFloor', member: 'ana' });
  expect(camerasKept(room.events, WHOLE)).toEqual(new Map([['ana', [{ from, until: 1e7 }]]]));
});

test('who agreed before cameras were kept, or withdrew, is not seen', () => {
  const room = classWith(plan({}));
  expect(room.state.recording.cameras).toBe(false);
  floorFor(room, 'ana', 20_000);
  room.happen({ type: 'settingsChanged', by: 'maren', layer: 'course', settings: CAMERAS.settings });
  expect(room.state.recording.cameras).toBe(true);
  floorFor(room, 'ana', 20_000);
  expect(camerasKept(room.events, WHOLE)).toEqual(new Map());
  room.do(ben, { type: 'answerRecording', agrees: true });
  const kept = floorFor(room, 'ben', 20_000);
  expect(camerasKept(room.events, WHOLE)).toEqual(new Map([['ben', [kept]]]));
  room.do(ben, { type: 'answerRecording', agrees: false });
  expect(camerasKept(room.events, WHOLE)).toEqual(new Map());
});

test('a face is a name: where names are left out no student is seen', () => {
  expect(classWith(plan({ studentsCameras: true, leavesOut: ['names'] })).state.recording.cameras).toBe(
    false,
  );
});

test('who could not see the others in class, by name or by camera, does not see them afterwards', () => {
  expect(sawOthers(classWith(CAMERAS).events, ben)).toBe(true);
  for (const closed of ['seeNames', 'seeCameras']) {
    const { events } = classWith(plan({ studentsCameras: true }, { [closed]: 'closed' }));
    expect(sawOthers(events, ben)).toBe(false);
    expect(sawOthers(events, maren)).toBe(true);
  }
});

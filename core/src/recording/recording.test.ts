import fc from 'fast-check';
import type { StoredEvent } from '../room/index';
import { isWithheld, snapshotFor } from '../room/index';
import { ana, ben, lecture } from '../testing/index';
import {
  chapterMetadata,
  chaptersOf,
  gapsOf,
  keptPictures,
  lengthOf,
  maskedFor,
  measuredIn,
  mixArguments,
  picturesOf,
  positionOf,
  withheldIn,
  writtenLines,
  writtenText,
  type Part,
} from './index';

const parts: Part[] = [
  { from: 1000, until: 5000 },
  { from: 9000, until: 12_000 },
];

test('an instant of the class has its place in the recording, one between parts lies where they meet', () => {
  expect(lengthOf(parts)).toBe(7000);
  expect([0, 1000, 3000, 7000, 9000, 10_000, 99_000].map((at) => positionOf(parts, at))).toEqual([
    0, 0, 2000, 4000, 4000, 5000, 7000,
  ]);
});

test('a later instant never lies earlier in the recording', () => {
  const anyParts = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 5000 }), fc.integer({ min: 0, max: 5000 })), { maxLength: 8 })
    .map((steps) => {
      let at = 0;
      return steps.map(([pause, length]) => {
        const from = at + pause;
        at = from + length;
        return { from, until: at };
      });
    });
  fc.assert(
    fc.property(anyParts, fc.nat(60_000), fc.nat(60_000), (p, a, b) => {
      const [early, late] = a < b ? [a, b] : [b, a];
      expect(positionOf(p, early)).toBeLessThanOrEqual(positionOf(p, late));
      expect(positionOf(p, late)).toBeLessThanOrEqual(lengthOf(p));
    }),
  );
});

const event = (at: number, body: object) => ({ seq: 1, at, ...body }) as StoredEvent;

test('a gap says whether a teacher paused or the server was away', () => {
  const paused = event(5000, { type: 'recordingPaused', by: 'maren' });
  expect(gapsOf(parts, [paused])).toEqual([{ position: 4000, missing: 4000, why: 'paused' }]);
  expect(gapsOf(parts, [])[0]!.why).toBe('interrupted');
  expect(gapsOf(parts, [event(5000, { type: 'tablesLaid', by: 'maren' })])[0]!.why).toBe('tables');
});

test('chapters come from what happened', () => {
  const events = [
    event(500, { type: 'entered', member: 'ana', name: 'Ana Lanyon', role: 'student' }),
    event(3000, { type: 'floorGiven', by: 'maren', member: 'ana' }),
    event(9000, { type: 'recordingResumed', by: 'maren' }),
  ];
  expect(chaptersOf(parts, events)).toEqual([
    { title: 'Class begins', position: 0 },
    { title: 'Ana Lanyon has the floor', position: 2000 },
    { title: 'After the pause', position: 4000 },
  ]);
});

const sound = (file: string, offset: number) => ({ file, offset });

test('voices are mixed at their times; one that began before its piece loses what was before', () => {
  const args = mixArguments(60_000, [sound('a.opus', 250), sound('b.opus', -40)], { whole: 'w', quick: 'q' });
  const said = args.join(' ');
  expect(said).toContain('adelay=250:all=1');
  expect(said).toContain('atrim=start=0.040');
  expect(said).toContain('amix=inputs=3:duration=first');
  expect(said).toContain('-t 60.000 w');
  expect(said).toContain('-t 60.000 q');
});

test('slices that go on are one picture, each file shown until the next begins; others are pictures of their own', () => {
  const slice = (track: string, at: number, length: number, goesOn: boolean) => ({
    ...{ kind: 'camera' as const, member: 'maren', file: `${track}${at}`, track, at, length, goesOn },
  });
  const found = picturesOf([
    slice('a', 500, 59_000, false),
    slice('b', 0, 1000, false),
    slice('a', 59_700, 50_000, true),
    slice('a', 109_800, 5000, true),
    slice('b', 30_000, 1000, false),
  ]);
  expect(found.map((p) => [p.at, p.length, p.files.map((f) => f.length)])).toEqual([
    [500, 114_300, [59_200, 50_100, 5000]],
    [0, 1000, [1000]],
    [30_000, 1000, [1000]],
  ]);
});

test('of cameras a teacher’s is kept, or an assistant’s where there is none; screens always', () => {
  const picture = (kind: 'camera' | 'screen', role: string) => ({ kind, role });
  const all = [picture('camera', 'assistant'), picture('camera', 'teacher'), picture('screen', 'student')];
  expect(keptPictures(all)).toEqual(all.slice(1));
  expect(keptPictures(all.slice(0, 1))).toEqual(all.slice(0, 1));
});

test('what was measured is read: how loud, and where nobody is heard', () => {
  const said = `[silencedetect] silence_start: -0.01
[silencedetect] silence_end: 4.2 | silence_duration: 4.2
[silencedetect] silence_start: 57.5
[Parsed_ebur128_1] Summary:

  Integrated loudness:
    I:         -23.4 LUFS
    Threshold: -33.6 LUFS

  Loudness range:
    LRA:         6.1 LU
    Threshold: -43.5 LUFS

  True peak:
    Peak:       -2.0 dBFS`;
  expect(measuredIn(said, 60_000)).toEqual({
    loudness: { integrated: -23.4, threshold: -33.6, range: 6.1, peak: -2 },
    silences: [
      { from: 0, until: 4200 },
      { from: 57_500, until: 60_000 },
    ],
  });
  expect(measuredIn(said.replace('-23.4', '-70.0'), 60_000).loudness).toBeNull();
});

test('what was written to the class is taken along, and nothing that was for some alone', () => {
  const room = lecture({ writeToClass: 'open', writeToTeachers: 'open' });
  const from = room.events.at(-1)!.at;
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'One\ntwo' });
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'Quietly' });
  const parts = [{ from, until: from + 10_000 }];
  const lines = writtenLines(parts, room.events);
  expect(lines).toEqual([{ position: 1000, at: from + 1000, by: 'Ana Lanyon', text: 'One\ntwo' }]);
  expect(writtenText(lines, 'UTC')).toMatch(/^\d\d:\d\d Ana Lanyon: One\n {2}two\n$/);
  // Before and after the recording nothing is.
  expect(writtenLines([{ from: from + 5000, until: from + 9000 }], room.events)).toEqual([]);
  expect(chapterMetadata('A = B', [{ title: 'Class; begins', position: 0 }], 5000)).toBe(
    ';FFMETADATA1\ntitle=A \\= B\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=5000\ntitle=Class\\; begins\n',
  );
});

test('who does not agree is nobody in what a recording tells, from the beginning on; who agrees again is there', () => {
  const room = lecture({ writeToClass: 'open', draw: 'open' });
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'Before I knew' });
  room.do(ana, { type: 'answerRecording', agrees: false });
  expect(room.do(ana, { type: 'answerRecording', agrees: false })).toEqual({ ok: true, events: [] });
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'Now I know' });
  room.do(ana, { type: 'draw', stroke: { points: [0.1, 0.1], colour: 'ink' } });
  room.do(ben, { type: 'say', addressee: { to: 'class' }, text: 'I do not mind' });
  expect(isWithheld(room.state, 'ana')).toBe(true);
  // Whether somebody agreed is known to them and to those who teach.
  expect(snapshotFor(room.state, ben).recording.answers).toEqual({});
  const told = JSON.stringify(maskedFor(room.events, withheldIn(room.events)));
  for (const own of ['Ana Lanyon', 'Before I knew', 'Now I know', 'drawn', 'recordingAnswered'])
    expect(told).not.toContain(own);
  expect(told).toContain('I do not mind');
  room.do(ana, { type: 'answerRecording', agrees: true });
  expect(JSON.stringify(maskedFor(room.events, withheldIn(room.events)))).toContain('Now I know');
});

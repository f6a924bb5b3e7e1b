import fc from 'fast-check';
import type { StoredEvent } from '../room/index';
import { isWithheld, snapshotFor } from '../room/index';
import { ana, ben, lecture } from '../testing/index';
import {
  chapterMetadata,
  chaptersOf,
  copiedPicture,
  gapsOf,
  lengthOf,
  maskedFor,
  mixArguments,
  positionOf,
  storageForecast,
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

const sound = (file: string, offset: number) => ({ file, kind: 'sound' as const, offset });
const camera = (file: string, offset: number) => ({ file, kind: 'camera' as const, offset });
const screen = (file: string, offset: number) => ({ file, kind: 'screen' as const, offset });

test('sounds are mixed at their offsets, and a picture to copy is copied', () => {
  const part = {
    length: 60_000,
    tracks: [sound('a.opus', 250), sound('b.opus', 9000), camera('c.webm', 400)],
  };
  const args = mixArguments(part, { how: 'copy', listFile: 'list.txt', offset: 400 }, 'out.webm').join(' ');
  expect(args).toContain('adelay=250:all=1');
  expect(args).toContain('adelay=9000:all=1');
  expect(args).toContain('amix=inputs=3:duration=first');
  expect(args).toContain('-itsoffset 0.400 -f concat -safe 0 -i list.txt');
  expect(args).toContain('-c:v copy');
  expect(args).toContain('-t 60.000 out.webm');
});

test('cameras one after another are copied, each until the next begins', () => {
  const part = { length: 60_000, tracks: [camera('second.webm', 20_000), camera('first.webm', 500)] };
  expect(copiedPicture(part)).toEqual({
    offset: 500,
    list: "ffconcat version 1.0\nfile 'first.webm'\noutpoint 19.500\nduration 19.500\nfile 'second.webm'\noutpoint 40.000\nduration 40.000\n",
  });
  expect(copiedPicture({ length: 1000, tracks: [sound('a.opus', 0)] })).toBeNull();
  expect(copiedPicture({ length: 1000, tracks: [camera('c.webm', 0), screen('s.webm', 100)] })).toBeNull();
});

test('a presented screen is drawn over the camera; a part without a picture gets a blank one', () => {
  const tracks = [screen('s.webm', 0), camera('c.webm', 0)];
  const args = mixArguments({ length: 1000, tracks }, { how: 'draw' }, 'out.webm').join(' ');
  expect(args.indexOf('c.webm')).toBeLessThan(args.indexOf('s.webm'));
  expect(args).toContain('overlay');
  expect(mixArguments({ length: 1000, tracks: [] }, { how: 'draw' }, 'o').join(' ')).toContain('color=');
  expect(mixArguments({ length: 1000, tracks: [] }, { how: 'none' }, 'o').join(' ')).not.toContain('-c:v');
});

test('the forecast is minutes times bitrate', () => {
  expect(storageForecast([80, 80], 1000)).toEqual({ minutes: 160, bytes: 160 * 60 * 125_000 });
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

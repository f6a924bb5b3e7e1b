import fc from 'fast-check';
import type { StoredEvent } from '../../room/index';
import { lengthOf, positionOf, type Part } from '../timeline';
import {
  chaptersTold,
  CutList,
  cuesMended,
  cuesTold,
  cutPictures,
  cutSoundArguments,
  eventsTold,
  FATES,
  gapsTold,
  isTold,
  joinNext,
  keyFrames,
  lengthTold,
  outAfter,
  outBefore,
  partsTold,
  shownAt,
  silencesTold,
  snapped,
  sourceAt,
  splitAt,
  stretchAt,
  stretchesBy,
  toldBy,
  UNCUT,
  withFate,
  type Mark,
} from './index';

const LENGTH = 600_000;
const out = (...of: [number, number][]): Mark[] => [
  { from: 0, fate: of[0]?.[0] === 0 ? 'out' : 'kept' },
  ...of.flatMap(([from, until]): Mark[] => [
    ...(from ? [{ from, fate: 'out' as const }] : []),
    { from: until, fate: 'kept' },
  ]),
];

/** Any cut that may be: at least a fifth of a second between its marks. */
const anyMarks = fc
  .array(fc.tuple(fc.integer({ min: 200, max: 90_000 }), fc.constantFrom(...FATES)), { maxLength: 12 })
  .chain((steps) =>
    fc.constantFrom(...FATES).map((first): Mark[] => {
      let at = 0;
      return [{ from: 0, fate: first }, ...steps.map(([by, fate]) => ({ from: (at += by), fate }))];
    }),
  );

test('what may be cut is said in words', () => {
  expect(CutList.safeParse(UNCUT).success).toBe(true);
  const faults = (marks: Mark[]) =>
    CutList.safeParse({ marks, nobody: [] }).error?.issues[0]?.message ?? null;
  expect(faults([{ from: 5, fate: 'out' }])).toBe('The first stretch begins at the beginning.');
  expect(faults([...UNCUT.marks, { from: 100, fate: 'out' }])).toMatch(/each lasts a fifth of a second/);
  expect(faults([])).not.toBeNull();
  expect(faults(out([1000, 2000]))).toBeNull();
});

test('a moment that is told goes to its place and back; later is never earlier', () => {
  fc.assert(
    fc.property(anyMarks, fc.nat(LENGTH - 1), fc.nat(LENGTH - 1), (marks, a, b) => {
      const told = toldBy(marks, LENGTH);
      const [early, late] = a < b ? [a, b] : [b, a];
      expect(shownAt(told, early)).toBeLessThanOrEqual(shownAt(told, late));
      expect(shownAt(told, late)).toBeLessThanOrEqual(lengthTold(told));
      if (isTold(told, a)) expect(sourceAt(told, shownAt(told, a))).toBe(a);
      // Told and left out are all there is.
      const left = stretchesBy(marks, LENGTH).filter((s) => s.fate === 'out');
      expect(lengthTold(told) + lengthTold(left)).toBe(LENGTH);
    }),
  );
});

test('the parts of the class that are told lie as the recording does', () => {
  const parts: Part[] = [
    { from: 1_000_000, until: 1_250_000 },
    { from: 1_300_000, until: 1_650_000 },
  ];
  fc.assert(
    fc.property(anyMarks, fc.integer({ min: 1_000_000, max: 1_649_999 }), (marks, at) => {
      const told = toldBy(marks, LENGTH);
      const left = partsTold(parts, told);
      expect(lengthOf(left)).toBe(lengthTold(told));
      expect(positionOf(left, at)).toBe(shownAt(told, positionOf(parts, at)));
    }),
  );
});

test('a stretch is divided, joined, left out before and after; nothing of the rest changes', () => {
  const divided = splitAt(UNCUT.marks, 240_000.4, LENGTH);
  expect(divided).toEqual([
    { from: 0, fate: 'kept' },
    { from: 240_000, fate: 'kept' },
  ]);
  expect(splitAt(divided, 240_100, LENGTH)).toEqual(divided);
  expect(splitAt(divided, LENGTH - 50, LENGTH)).toEqual(divided);
  expect(joinNext(withFate(divided, 0, 'silent'), 0)).toEqual([{ from: 0, fate: 'silent' }]);
  expect(outBefore(UNCUT.marks, 240_000, LENGTH)).toEqual(out([0, 240_000]));
  expect(outAfter(divided, 300_000, LENGTH)).toEqual([...divided, { from: 300_000, fate: 'out' }]);
  fc.assert(
    fc.property(anyMarks, fc.nat(LENGTH - 1), (marks, at) => {
      for (const next of [
        splitAt(marks, at, LENGTH),
        outBefore(marks, at, LENGTH),
        outAfter(marks, at, LENGTH),
      ])
        expect(CutList.safeParse({ marks: next, nobody: [] }).success).toBe(true);
      const other = splitAt(marks, at, LENGTH);
      expect(toldBy(other, LENGTH)).toEqual(toldBy(marks, LENGTH));
      const before = outBefore(marks, at, LENGTH);
      expect(toldBy(before, LENGTH).every((s) => s.from >= before[1]!.from || before.length === 1)).toBe(
        true,
      );
      expect(stretchAt(other, at)).toBeGreaterThanOrEqual(stretchAt(marks, at));
    }),
  );
});

test('a cut goes into a silence that is near, and stays where none is', () => {
  const silences = [
    { from: 10_000, until: 13_000 },
    { from: 20_000, until: 20_600 },
  ];
  expect([9000, 12_000, 19_000, 16_000].map((at) => snapped(silences, at))).toEqual([
    9000, 12_000, 20_300, 16_000,
  ]);
  expect(snapped(silences, 9800)).toBe(11_500);
});

test('what was written while nothing is told is not told; who came still came', () => {
  const parts: Part[] = [{ from: 1000, until: 1000 + LENGTH }];
  const event = (at: number, type: string) => ({ seq: at, at, type }) as unknown as StoredEvent;
  const events = [event(500, 'said'), event(2000, 'said'), event(62_000, 'said'), event(62_001, 'entered')];
  const left = partsTold(parts, toldBy(out([60_000, 90_000]), LENGTH));
  expect(eventsTold(events, { parts, left }).map((e) => e.at)).toEqual([500, 2000, 62_001]);
});

test('gaps and chapters are where they are in what is told', () => {
  const parts: Part[] = [
    { from: 0, until: 300_000 },
    { from: 400_000, until: 700_000 },
  ];
  const told = toldBy(out([0, 60_000], [120_000, 180_000]), LENGTH);
  expect(gapsTold(parts, told, [])).toEqual([
    { position: 60_000, missing: 60_000, why: 'cut' },
    { position: 180_000, missing: 100_000, why: 'interrupted' },
  ]);
  expect(gapsTold(parts, toldBy(out([290_000, 310_000]), LENGTH), [])).toEqual([
    { position: 290_000, missing: 20_000, why: 'cut' },
  ]);
  const chapters = [0, 30_000, 90_000, 130_000, 590_000].map((position) => ({
    position,
    title: `At ${position}`,
  }));
  expect(chaptersTold(chapters, told)).toEqual([
    { position: 0, title: 'At 30000' },
    { position: 30_000, title: 'At 90000' },
    { position: 60_000, title: 'At 130000' },
    { position: 470_000, title: 'At 590000' },
  ]);
});

test('captions of what is not heard are not told, come back with it, and are mended where they are', () => {
  const marks: Mark[] = [
    ...out([60_000, 90_000]),
    { from: 120_000, fate: 'silent' },
    { from: 130_000, fate: 'kept' },
  ];
  const cue = (from: number, text: string) => ({ from, until: from + 4000, text });
  const all = [
    cue(50_000, 'Told'),
    cue(58_000, 'Half'),
    cue(61_000, 'Left'),
    cue(95_000, 'On'),
    cue(122_000, 'Hush'),
  ];
  const told = cuesTold(all, marks, LENGTH);
  expect(told.map((c) => [c.from, c.until, c.text])).toEqual([
    [50_000, 54_000, 'Told'],
    [58_000, 60_000, 'Half'],
    [65_000, 69_000, 'On'],
  ]);
  const mended = cuesMended(all, [{ ...told[2]!, text: 'Onward' }], marks, LENGTH);
  expect(mended.map((c) => [c.from, c.text])).toEqual([
    [61_000, 'Left'],
    [95_000, 'Onward'],
    [122_000, 'Hush'],
  ]);
});

test('pictures are cut where they are told and seen; silences go with them', () => {
  const marks: Mark[] = [
    ...out([60_000, 90_000]),
    { from: 200_000, fate: 'unseen' },
    { from: 210_000, fate: 'kept' },
  ];
  const cut = cutPictures([{ kind: 'camera', at: 50_000, length: 200_000 }], marks, LENGTH);
  expect(cut.map(({ at, from, until }) => [at, from, until])).toEqual([
    [50_000, 0, 10_000],
    [60_000, 40_000, 150_000],
    [180_000, 160_000, 200_000],
  ]);
  const told = toldBy(marks, LENGTH);
  expect(silencesTold([{ from: 55_000, until: 65_000 }], told)).toEqual([{ from: 55_000, until: 60_000 }]);
});

test('each stretch of sound is read from its place, and what is silent lasts as long', () => {
  const marks: Mark[] = [...out([1000, 2000]), { from: 4000, fate: 'silent' }];
  const said = cutSoundArguments('in.webm', marks, 5000, 'out.webm').join(' ');
  expect(said).toContain('-ss 0.000 -t 1.000 -i in.webm -ss 2.000 -t 2.000 -i in.webm -f lavfi -t 1.000');
  expect(said).toContain('concat=n=3:v=0:a=1');
  expect(keyFrames('0.000000,K__\n0.033,___\n10.5,K__\nN/A,K\n')).toEqual([0, 10_500]);
});

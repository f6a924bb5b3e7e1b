import fc from 'fast-check';
import { readCaptions, stampOf, writeVtt, type Cue } from './index';

const words = fc
  .array(fc.constantFrom('tide', 'a < b', 'Übung', '&amp;', 'الأمواج', '🌊', 'x > y & z'), {
    minLength: 1,
    maxLength: 6,
  })
  .map((all) => all.join(' '));
const cue = fc
  .tuple(fc.integer({ min: 0, max: 5_000_000 }), fc.integer({ min: 1, max: 9000 }), words)
  .map(([from, long, text]): Cue => ({ from, until: from + long, text }));

test('what is written is read again as it was, in its order in time', () => {
  fc.assert(
    fc.property(fc.array(cue, { maxLength: 20 }), (cues) => {
      const sorted = [...cues].sort((a, b) => a.from - b.from || a.until - b.until);
      expect(readCaptions(writeVtt(cues))).toEqual(sorted);
      expect(readCaptions(writeVtt(sorted).replaceAll('\n', '\r\n'))).toEqual(sorted);
    }),
  );
});

test('both formats, with what programs write around the words', () => {
  const vtt = `\uFEFFWEBVTT Kind: captions\n\nNOTE made by hand\n\nSTYLE\n::cue { color: red }\n\nintro\n00:01.000 --> 00:02.5 align:start\n<v Maren>Good <i>evening</i>.\n\n01:00:00.000 --> 01:00:01.000\n- One\n- Two\n`;
  expect(readCaptions(vtt)).toEqual([
    { from: 1000, until: 2500, text: 'Good evening.' },
    { from: 3_600_000, until: 3_601_000, text: '- One\n- Two' },
  ]);
  const srt = `2\n00:00:05,250 --> 00:00:06,000\nLater\n\n1\n00:00:01,000 --> 00:00:02,000\nFirst\n`;
  expect(readCaptions(srt).map((c) => c.text)).toEqual(['First', 'Later']);
  expect(stampOf(3_723_004)).toBe('01:02:03.004');
});

test('what cannot be taken says in which line', () => {
  const read = (text: string) => () => readCaptions(text);
  expect(read('WEBVTT\n\n00:xx --> 00:02.000\nHm')).toThrow('Line 3: This time cannot be read.');
  expect(read('1\n00:00:05,000 --> 00:00:05,000\nHm')).toThrow('Line 2: This ends before it begins.');
  expect(read('1\n00:00:01,000 --> 00:00:02,000\nHm\n00:00:03,000 --> 00:00:04,000\nX')).toThrow('Line 4');
  expect(read(`1\n00:00:01,000 --> 00:00:02,000\n${'x'.repeat(501)}`)).toThrow('at most 500');
  expect(readCaptions('no captions at all')).toEqual([]);
});

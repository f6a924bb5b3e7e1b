import type { PutText } from '../room/index';
import { freeIn, linesOf, placeOfText, PLACES } from './lettering';

const put = (text: string, at: [number, number]): PutText => ({
  ...{ kind: 'text', text, at, colour: 'ink', by: 'maren', place: 'class', side: 1, seq: 1 },
});

test('a text is a column of whole words, and a word too long for it is broken', () => {
  expect(linesOf('High water at the old pier 14:10')).toEqual(['High water at the', 'old pier 14:10']);
  expect(linesOf('a'.repeat(30)).map((l) => l.length)).toEqual([18, 12]);
});

test('what is put in one place stands below what is there, and each place keeps its name', () => {
  for (const { name, at } of PLACES) {
    expect(freeIn(name, [])).toEqual(at);
    const first = put('High water at the old pier 14:10', at);
    expect(placeOfText(first)).toBe(name);
    const next = freeIn(name, [first]);
    expect(next[0]).toBe(at[0]);
    expect(next[1]).toBeGreaterThan(at[1]);
    expect(placeOfText({ at: next })).toBe(name);
  }
  const crowd = Array.from({ length: 60 }, () => put('Ebb', [PLACES[8]!.at[0], 0.98]));
  expect(freeIn('Bottom right', crowd)[1]).toBeLessThanOrEqual(0.98);
});

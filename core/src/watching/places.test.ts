import fc from 'fast-check';
import { placesOf, wordsIn } from './index';

const said = (at: number, text: string) => ({ position: at * 1000, kind: 'said' as const, text });
const found = (lines: ReturnType<typeof said>[], q: string) =>
  placesOf(lines, wordsIn(q)).map((p) => [p.position / 1000, p.text]);

test('words are letters and digits alone, without accents, each once: no operator of a search is left of what is typed', () => {
  expect(wordsIn('spring TIDE, spring')).toEqual(['spring', 'tide']);
  expect(wordsIn('+tide* -"ebb" (flood) @3 ~neap <i>')).toEqual(['tide', 'ebb', 'flood', 'neap']);
  expect(wordsIn('go with the flow at 6.5 to 10')).toEqual(['go', 'with', 'the', 'flow', 'at', 'to', '10']);
  expect(wordsIn('Ångström ćurić 潮汐表 приливы')).toEqual(['angstrom', 'curic', '潮汐表', 'приливы']);
  expect(wordsIn('x'.repeat(200))).toEqual(['x'.repeat(60)]);
  for (const nothing of ['', '  ', '+-*', 'a', '% _', '"']) expect(wordsIn(nothing)).toEqual([]);
});

test('a place is a line with all the words, or where they come within a minute, or where they come closest', () => {
  const lines = [
    said(0, 'The tide turns.'),
    said(10, 'Now to the harbour.'),
    said(300, 'High tides, and the harbour again'),
    said(900, 'of harbours'),
  ];
  expect(found(lines, 'tide harbour')).toEqual([[300, 'High tides, and the harbour again']]);
  expect(found(lines, 'turns harbour')).toEqual([[0, 'The tide turns. … Now to the harbour.']]);
  expect(found(lines, 'turns again')).toEqual([[0, 'The tide turns. … High tides, and the harbour again']]);
  expect(found(lines, 'harb').map(([at]) => at)).toEqual([10, 300, 900]);
  // Two letters are a word, no beginning of one.
  expect(found(lines, 'to').map(([at]) => at)).toEqual([10]);
  expect(found(lines, 'ha')).toEqual([]);
  expect(found(lines, 'kelp tide')).toEqual([]);
  expect(found(lines, '')).toEqual([]);
  // A word that is said over and over is shown once, where it is nearest to the other.
  const often = [said(0, 'ebb'), said(4, 'ebb'), said(8, 'ebb'), said(9, 'neap'), said(200, 'neap')];
  expect(found(often, 'ebb neap')).toEqual([[8, 'ebb … neap']]);
});

test('wherever all the words are somewhere, there is a place, and every place has all of them', () => {
  const word = fc.constantFrom('tide', 'harbour', 'ebb', 'flood', 'buoy');
  const lines = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 3600 }), fc.array(word, { minLength: 1, maxLength: 3 })), {
      maxLength: 30,
    })
    .map((all) => all.sort((a, b) => a[0] - b[0]).map(([at, words]) => said(at, words.join(' '))));
  fc.assert(
    fc.property(lines, fc.uniqueArray(word, { minLength: 1, maxLength: 3 }), (all, wanted) => {
      const places = placesOf(all, wanted);
      const everywhere = all.map((l) => l.text).join(' ');
      expect(places.length > 0).toBe(wanted.every((w) => everywhere.includes(w)));
      for (const place of places) for (const w of wanted) expect(place.text).toContain(w);
      expect(places.map((p) => p.position)).toEqual(places.map((p) => p.position).sort((a, b) => a - b));
    }),
  );
});

import fc from 'fast-check';
import { chaptersOf } from '../recording/timeline';
import { namesIn, signsWords } from '../room/index';
import { ana, anyStep, ben, lecture, maren } from '../testing/index';
import {
  filmsIn,
  search,
  shareWatched,
  sourceStretch,
  stretchesOf,
  stripOf,
  watchedAgain,
  watchedByAll,
  watchedTold,
  pagesIn,
  wordsOf,
  STRETCH_MS,
} from './index';

test('what was watched is counted by stretches, whatever a page says of them', () => {
  const length = 95_000;
  expect(stretchesOf(length)).toBe(10);
  const once = watchedAgain([], [0, 1, 1, 9, 10, -1, 4000], length);
  expect(once).toEqual([1, 2, 0, 0, 0, 0, 0, 0, 0, 1]);
  expect(shareWatched(once, length)).toBeCloseTo(0.3);
  // A recording that is prepared anew and shorter keeps what it has.
  expect(watchedAgain(once, [2], 25_000)).toEqual([1, 2, 1]);
  expect(watchedByAll([once, [0, 1]], length)).toEqual([1, 3, 0, 0, 0, 0, 0, 0, 0, 1]);
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 30 })), (stretches) => {
      const all = watchedAgain([], stretches, 200_000);
      expect(all.reduce((sum, n) => sum + n, 0)).toBe(stretches.filter((i) => i < 20).length);
      expect(shareWatched(all, 200_000)).toBeLessThanOrEqual(1);
    }),
  );
});

test('what was said, written and drawn is found by its words, without accents, in its order in time', () => {
  const room = lecture({ writeToClass: 'open', draw: 'open' });
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'Is the Höhe of the tide known?' });
  room.do(maren, { type: 'putText', text: { text: 'Springs and neaps', at: [0.1, 0.1], colour: 'ink' } });
  const from = room.events[0]!.at;
  const parts = [{ from, until: from + 60_000 }];
  const cues = [{ from: 20_000, until: 22_000, text: 'The tide turns at six.' }];
  const all = wordsOf({ parts, events: room.events, chapters: chaptersOf(parts, room.events), cues });
  const found = (words: string) => search(all, words, namesIn(room.events));
  expect(found('TIDE').map((f) => [f.kind, f.member])).toEqual([
    ['written', 'ana'],
    ['said', null],
  ]);
  expect(found('hohe')).toHaveLength(1);
  expect(found('lanyon tide')).toHaveLength(1);
  expect(found('neaps')[0]!.kind).toBe('drawn');
  expect(found('  ')).toEqual([]);
  expect(found('nothing of it')).toEqual([]);
});

test('what is read on a page is found when the class first looked at it; pages that were passed are no chapters', () => {
  const room = lecture();
  const deck = { id: 'a'.repeat(64), name: 'Tides.pdf', kind: 'pdf' as const, pages: 9 };
  room.do(maren, { type: 'showSlides', deck, page: 1 });
  const from = room.events.at(-1)!.at;
  for (const page of [2, 3, 4, 2]) {
    room.later += page === 2 ? 30_000 : 2000;
    room.do(maren, { type: 'turnSlide', page });
  }
  const parts = [{ from, until: from + 120_000 }];
  const shown = pagesIn(parts, room.events);
  expect(shown.map((s) => s.page)).toEqual([1, 2, 3, 4]);
  expect(chaptersOf(parts, room.events).map((c) => c.title)).toEqual([
    ...['Class begins', 'Tides.pdf', 'Page 4', 'Page 2'],
  ]);
  const read = [{ position: shown[1]!.position, text: 'Slack water' }];
  const all = wordsOf({ parts, events: room.events, chapters: [], cues: [], read });
  expect(search(all, 'slack', namesIn(room.events))).toMatchObject([{ kind: 'shown', text: 'Slack water' }]);
});

test('the strip says who could be heard, within the recording, and never twice at once', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 40 }), (steps) => {
      const room = lecture({ speak: 'open', writeToClass: 'open' });
      for (const [actor, command] of steps) room.do(actor, command);
      const from = room.events[0]!.at;
      const until = room.events.at(-1)!.at + 5000;
      const strip = stripOf([{ from, until }], room.events);
      for (const spans of [strip.open, strip.floor, strip.signs])
        for (const [i, s] of spans.entries()) {
          expect(s.until).toBeGreaterThan(s.from);
          expect(s.from).toBeGreaterThanOrEqual(spans[i - 1]?.until ?? 0);
          expect(s.until).toBeLessThanOrEqual(until - from);
        }
      const said = room.events.filter((e) => e.type === 'said').length;
      expect(strip.written.reduce((sum, w) => sum + w.count, 0)).toBe(said);
      for (const w of strip.written) expect(w.from % STRETCH_MS).toBe(0);
    }),
  );
});

test('a film is of a recording where any of its showing is told, and not where all of it is left out', () => {
  const room = lecture();
  room.do(maren, { type: 'showFilm', material: 'tide', name: 'Tide.webm' });
  const from = room.events.at(-1)!.at;
  room.do(maren, { type: 'putFilmAway' });
  const until = room.events.at(-1)!.at;
  room.do(maren, { type: 'showFilm', material: 'ebb', name: 'Ebb.webm' });
  const last = room.events.at(-1)!.at;
  const within = (...parts: [number, number][]) =>
    [
      ...filmsIn(
        parts.map(([a, b]) => ({ from: a, until: b })),
        room.events,
      ),
    ].sort();
  expect(within([from - 500, last + 9000])).toEqual(['ebb', 'tide']);
  expect(within([from - 500, from], [until, last + 9000])).toEqual(['ebb']);
  expect(within([from - 500, from + 1], [until, last])).toEqual(['tide']);
  expect(within([0, from])).toEqual([]);
});

test('signs stand in the strip while they were given, each with how many gave it', () => {
  const room = lecture({ react: 'open' });
  const from = room.events[0]!.at;
  const at = () => room.events.at(-1)!.at - from;
  room.do(ana, { type: 'giveSign', sign: 'lost' });
  const first = at();
  room.do(ben, { type: 'giveSign', sign: 'lost' });
  const second = at();
  room.do(maren, { type: 'say', addressee: { to: 'class' }, text: 'Once more' });
  room.do(ana, { type: 'giveSign', sign: 'agree' });
  const third = at();
  const until = third + 10_000;
  expect(stripOf([{ from, until: from + until }], room.events).signs).toEqual([
    { from: first, until: second, given: { lost: 1 } },
    { from: second, until: third, given: { lost: 2 } },
    { from: third, until, given: { lost: 1, agree: 1 } },
  ]);
  expect(signsWords({ agree: 1, lost: 2 })).toBe('2 lost, 1 agreed');
});

test('what was watched of a recording that is cut is known by what was recorded', () => {
  // The first 40 seconds and those from 60 to 70 are left out of 100.
  const told = [
    { from: 40_000, until: 60_000 },
    { from: 70_000, until: 100_000 },
  ];
  expect([0, 1, 2, 4].map((s) => sourceStretch(told, s))).toEqual([4, 5, 7, 9]);
  expect(sourceStretch(told, 40)).toBe(9);
  expect(watchedTold([9, 9, 9, 9, 1, 2, 9, 3, 4, 5], told)).toEqual([1, 2, 3, 4, 5]);
});

import fc from 'fast-check';
import { clashesOf, type Clash, type TimedSeries } from './index';

const MINUTE = 60_000;
const series = (id: string, people: string[], ...at: [number, number][]): TimedSeries => ({
  id,
  people,
  sessions: at.map(([start, minutes]) => ({ startsAt: start * MINUTE, endsAt: (start + minutes) * MINUTE })),
});

test('two sessions clash when they overlap and share somebody, with names and minutes', () => {
  expect(
    clashesOf([series('nav', ['maren', 'ana'], [100, 80]), series('met', ['ana', 'bo'], [150, 60])]),
  ).toEqual([
    {
      a: { series: 'nav', startsAt: 100 * MINUTE },
      b: { series: 'met', startsAt: 150 * MINUTE },
      minutes: 30,
      people: ['ana'],
    },
  ]);
});

test('sessions that follow on one another, or share nobody, do not clash', () => {
  expect(clashesOf([series('a', ['x'], [0, 60]), series('b', ['x'], [60, 60])])).toEqual([]);
  expect(clashesOf([series('a', ['x'], [0, 60]), series('b', ['y'], [0, 60])])).toEqual([]);
});

test('of two that begin together the first by id is named first, and a person named twice counts once', () => {
  const [clash] = clashesOf([series('b', ['x', 'x'], [0, 60]), series('a', ['x'], [0, 30])]);
  expect(clash).toMatchObject({ a: { series: 'a' }, b: { series: 'b' }, minutes: 30, people: ['x'] });
});

const any = fc
  .array(
    fc.record({
      people: fc.uniqueArray(fc.constantFrom('p', 'q', 'r', 's', 't'), { maxLength: 4 }),
      sessions: fc.array(
        fc.tuple(fc.integer({ min: -5000, max: 20_000 }), fc.integer({ min: 1, max: 700 })),
        { maxLength: 8 },
      ),
    }),
    { maxLength: 7 },
  )
  .map((all) =>
    all.map(({ people, sessions }, i) => series(`s${i}`, people, ...sessions.sort((a, b) => a[0] - b[0]))),
  );

/** The plain way: every session with every session of every other series. */
function plain(all: readonly TimedSeries[]): Clash[] {
  const found: Clash[] = [];
  for (const x of all)
    for (const y of all)
      for (const a of x.sessions)
        for (const b of y.sessions) {
          const people = x.people.filter((p) => y.people.includes(p)).sort();
          const minutes = (Math.min(a.endsAt, b.endsAt) - Math.max(a.startsAt, b.startsAt)) / MINUTE;
          const ordered = a.startsAt < b.startsAt || (a.startsAt === b.startsAt && x.id < y.id);
          if (x === y || !ordered || minutes <= 0 || !people.length) continue;
          found.push({
            a: { series: x.id, startsAt: a.startsAt },
            b: { series: y.id, startsAt: b.startsAt },
            minutes,
            people,
          });
        }
  return found;
}
const words = (clashes: Clash[]) => clashes.map((c) => JSON.stringify(c)).sort();

test('clashes are those that comparing everything with everything finds', () => {
  fc.assert(
    fc.property(any, (all) => {
      const found = clashesOf(all);
      expect(words(found)).toEqual(words(plain(all)));
      const starts = found.map((c) => c.a.startsAt);
      expect(starts).toEqual([...starts].sort((a, b) => a - b));
    }),
    { numRuns: 500 },
  );
});

test('asked about some series, it finds all of theirs and none among the others', () => {
  fc.assert(
    fc.property(any, fc.subarray(['s0', 's1', 's2', 's3', 's4', 's5', 's6']), (all, asked) => {
      const about = (id: string) => asked.includes(id);
      const theirs = clashesOf(all).filter((c) => about(c.a.series) || about(c.b.series));
      expect(clashesOf(all, about)).toEqual(theirs);
    }),
    { numRuns: 300 },
  );
});

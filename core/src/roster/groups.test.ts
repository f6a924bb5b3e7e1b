import fc from 'fast-check';
import { groupSlots } from '../calendar/groupSlots';
import { groupName, splitInto, type SplitWay } from './groups';

const class_ = fc.uniqueArray(
  fc.record({ id: fc.string({ minLength: 1, maxLength: 6 }), value: fc.constantFrom('A1', 'B2', 'C3') }),
  { maxLength: 60, selector: (p) => p.id },
);
const way = fc.constantFrom<SplitWay>('random', 'together', 'mixed');

test('everybody is in one group, none is too large, and the same seed gives the same groups in any order', () => {
  fc.assert(
    fc.property(class_, fc.integer({ min: 1, max: 15 }), way, fc.nat(), (people, size, how, seed) => {
      const groups = splitInto(people, size, how, seed);
      expect(groups.flatMap((g) => g.people).sort()).toEqual(people.map((p) => p.id).sort());
      for (const g of groups) expect(g.people.length).toBeLessThanOrEqual(size);
      expect(splitInto([...people].reverse(), size, how, seed)).toEqual(groups);
      const sizes = groups.map((g) => g.people.length);
      if (how !== 'together' && groups.length)
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
    }),
  );
});

test('together keeps a value to itself, mixed spreads it evenly', () => {
  fc.assert(
    fc.property(class_, fc.integer({ min: 2, max: 15 }), fc.nat(), (people, size, seed) => {
      const valueOf = new Map(people.map((p) => [p.id, p.value]));
      for (const g of splitInto(people, size, 'together', seed))
        expect(new Set(g.people.map((id) => valueOf.get(id))).size).toBeLessThanOrEqual(1);
      const mixed = splitInto(people, size, 'mixed', seed);
      for (const value of ['A1', 'B2', 'C3']) {
        const counts = mixed.map((g) => g.people.filter((id) => valueOf.get(id) === value).length);
        if (counts.length) expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(1);
      }
    }),
  );
});

test('another seed deals otherwise, and names go on after Z', () => {
  const people = Array.from({ length: 30 }, (_, i) => ({ id: `p${i}` }));
  expect(splitInto(people, 10, 'random', 1)).not.toEqual(splitInto(people, 10, 'random', 2));
  expect([0, 25, 26, 27, 52, 701, 702].map(groupName)).toEqual(['A', 'Z', 'AA', 'AB', 'BA', 'ZZ', 'AAA']);
  expect(splitInto([], 10, 'random', 1)).toEqual([]);
});

const window_ = { days: ['friday' as const, 'saturday' as const], from: '17:00', to: '19:00' };

test('staggered slots follow on one another within the window, then on the next weekday', () => {
  expect(groupSlots(5, window_, 30, 5, 'staggered')).toEqual([
    { day: 'friday', start: '17:00', minutes: 30 },
    { day: 'friday', start: '17:35', minutes: 30 },
    { day: 'friday', start: '18:10', minutes: 30 },
    { day: 'saturday', start: '17:00', minutes: 30 },
    { day: 'saturday', start: '17:35', minutes: 30 },
  ]);
});

test('simultaneous slots are all the same; what does not fit is said', () => {
  expect(groupSlots(3, window_, 60, 0, 'simultaneous')).toEqual(
    Array(3).fill({ day: 'friday', start: '17:00', minutes: 60 }),
  );
  expect(groupSlots(9, window_, 30, 5, 'staggered')).toContain('there is room for 6');
  expect(groupSlots(1, window_, 180, 0, 'simultaneous')).toContain('does not fit between 17:00 and 19:00');
  expect(groupSlots(1, { ...window_, days: [] }, 30, 0, 'staggered')).toContain('weekday');
});

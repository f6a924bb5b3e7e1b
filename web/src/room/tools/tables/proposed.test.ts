import { groupsOf, proposedTables, sizeWords, usualCount } from './proposed';

const people = [
  { member: 'ana', group: 'A' },
  { member: 'ben', group: 'B' },
  { member: 'cleo', group: 'A' },
  { member: 'dora', group: null },
];
const here = new Set(['ana', 'ben', 'dora']);
const wanted = { count: 2, seed: 4, moved: {} };

test('by lot those sit who are here; by groups all who have one, so that whoever is late has a seat', () => {
  const lot = proposedTables(people, here, {}, { way: 'lot', ...wanted });
  expect(lot.map((t) => t.name)).toEqual(['Table 1', 'Table 2']);
  expect(lot.flatMap((t) => t.members).sort()).toEqual(['ana', 'ben', 'dora']);
  expect(proposedTables(people, here, {}, { way: 'groups', ...wanted })).toEqual([
    { name: 'Group A', members: ['ana', 'cleo'] },
    { name: 'Group B', members: ['ben'] },
  ]);
  expect(groupsOf(people)).toEqual(['A', 'B']);
  expect(proposedTables(people, here, {}, { way: 'choice', ...wanted }).map((t) => t.members)).toEqual([
    [],
    [],
  ]);
});

test('whoever is seated elsewhere by hand is at one table alone', () => {
  const moved = { ana: 1, dora: 0 };
  expect(proposedTables(people, here, {}, { way: 'groups', ...wanted, moved })).toEqual([
    { name: 'Group A', members: ['cleo', 'dora'] },
    { name: 'Group B', members: ['ben', 'ana'] },
  ]);
});

test('four sit at a table, and how many at each is said', () => {
  expect([1, 8, 25, 300].map(usualCount)).toEqual([2, 2, 6, 30]);
  const of = (...sizes: number[]) => sizes.map((n) => ({ members: Array<string>(n).fill('m') }));
  expect(sizeWords(of(4, 4))).toBe('4 at each');
  expect(sizeWords(of(5, 4))).toBe('4 or 5 at each');
  expect(sizeWords(of(2, 6))).toBe('2 to 6 at each');
});

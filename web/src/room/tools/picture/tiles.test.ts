import { tilesFor } from './tiles';

test('faces are as large as they can be, and never smaller than one knows them', () => {
  expect(tilesFor(1, 800, 400)).toEqual({ columns: 1, rows: 1, shown: 1 });
  expect(tilesFor(2, 800, 300)).toEqual({ columns: 2, rows: 1, shown: 2 });
  expect(tilesFor(2, 300, 800)).toEqual({ columns: 1, rows: 2, shown: 2 });
  expect(tilesFor(9, 900, 500)).toEqual({ columns: 3, rows: 3, shown: 9 });
  const crowd = tilesFor(300, 760, 420);
  expect(crowd.shown).toBe(16);
  expect(crowd.columns * crowd.rows).toBeGreaterThanOrEqual(crowd.shown);
  expect((760 - 6 * (crowd.columns - 1)) / crowd.columns).toBeGreaterThanOrEqual(150);
  expect(tilesFor(5, 10, 10)).toEqual({ columns: 1, rows: 1, shown: 1 });
});

import { tilesFor } from './tiles';

test('faces are as large as they can be, and never smaller than one knows them', () => {
  expect(tilesFor(1, 800, 400)).toEqual({ columns: 1, rows: 1, shown: 1, small: false });
  expect(tilesFor(2, 800, 300)).toEqual({ columns: 2, rows: 1, shown: 2, small: false });
  expect(tilesFor(2, 300, 800)).toEqual({ columns: 1, rows: 2, shown: 2, small: false });
  expect(tilesFor(9, 900, 500)).toEqual({ columns: 3, rows: 3, shown: 9, small: false });
  const crowd = tilesFor(300, 760, 420);
  expect(crowd.shown).toBe(16);
  expect(crowd.columns * crowd.rows).toBeGreaterThanOrEqual(crowd.shown);
  expect((760 - 6 * (crowd.columns - 1)) / crowd.columns).toBeGreaterThanOrEqual(150);
  expect(tilesFor(5, 10, 10)).toEqual({ columns: 1, rows: 1, shown: 1, small: true });
  // A wall is received small; on a dense screen the same faces are not.
  expect(tilesFor(25, 900, 500)).toMatchObject({ columns: 5, small: true });
  expect(tilesFor(25, 900, 500, 2).small).toBe(false);
  expect(tilesFor(25, 1380, 760)).toMatchObject({ shown: 25, small: true });
  expect(tilesFor(9, 1380, 760).small).toBe(false);
});

import { framed } from './framed';

const WINDOW = { width: 800, height: 600 };
const whole = { fit: 'page' as const, zoom: 1, x: 0.5, y: 0.5 };

test('a page is whole in the middle of its window, whatever its shape', () => {
  expect(framed(0.5, whole, WINDOW)).toEqual({ width: 800, left: 0, top: 100 });
  expect(framed(1.5, whole, WINDOW)).toEqual({ width: 400, left: 200, top: 0 });
});

test('as wide as its window it begins at its top, and is moved no further than its end', () => {
  const wide = { ...whole, fit: 'width' as const };
  expect(framed(1.5, { ...wide, y: 0 }, WINDOW)).toEqual({ width: 800, left: 0, top: 0 });
  expect(framed(1.5, { ...wide, y: 1 }, WINDOW)).toEqual({ width: 800, left: 0, top: 600 - 1200 });
});

test('enlarged around a point that point is in the middle, but for what would be beyond an edge', () => {
  expect(framed(0.75, { ...whole, zoom: 4 }, WINDOW)).toEqual({ width: 3200, left: -1200, top: -900 });
  expect(framed(0.75, { ...whole, zoom: 4, x: 0, y: 1 }, WINDOW)).toEqual({
    ...{ width: 3200, left: 0, top: 600 - 2400 },
  });
});

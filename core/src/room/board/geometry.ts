import type { Mark } from './state';

/** The points of a mark that it is known by, x and y in turn, in fractions of the board. */
export function pointsOf(mark: Mark): readonly number[] {
  if (mark.kind === 'stroke') return mark.points;
  return mark.kind === 'text' ? mark.at : [...mark.from, ...mark.to];
}

const inside = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;

/** A mark, moved by fractions of the board. */
export function moved(mark: Mark, x: number, y: number): Mark {
  const to = ([a, b]: readonly [number, number]): [number, number] => [inside(a + x), inside(b + y)];
  if (mark.kind === 'stroke')
    return { ...mark, points: mark.points.map((n, i) => inside(n + (i % 2 ? y : x))) };
  return mark.kind === 'text'
    ? { ...mark, at: to(mark.at) }
    : { ...mark, from: to(mark.from), to: to(mark.to) };
}

/** How far marks are moved together so that all of them stay on the board. */
export function keptOn(marks: readonly Mark[], x: number, y: number): { x: number; y: number } {
  let [left, right, top, bottom] = [1, 0, 1, 0];
  for (const mark of marks)
    pointsOf(mark).forEach((n, i) => {
      if (i % 2) [top, bottom] = [Math.min(top, n), Math.max(bottom, n)];
      else [left, right] = [Math.min(left, n), Math.max(right, n)];
    });
  const kept = (by: number, least: number, most: number) => Math.min(1 - most, Math.max(-least, by));
  return { x: kept(x, left, right), y: kept(y, top, bottom) };
}

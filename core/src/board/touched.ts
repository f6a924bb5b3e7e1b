import { pointsOf, type Mark } from '../room/index';
import { slipBox } from './lettering';
import { HEIGHT, WIDTH } from './outline';

/** Something within so many of the board's units of a point is meant by it. */
const NEAR = 22;

type Point = readonly [number, number];
interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** How far a point is from the line between two others. */
function far([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const length = dx * dx + dy * dy;
  const along = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length));
  return Math.hypot(x - ax - along * dx, y - ay - along * dy);
}

/** The lines that a mark is made of, in the board's units, one point after the other. */
function lineOf(mark: Mark): Point[] {
  const all = pointsOf(mark);
  const points: Point[] = [];
  for (let i = 0; i + 1 < all.length; i += 2) points.push([all[i]! * WIDTH, all[i + 1]! * HEIGHT]);
  const form = mark.kind === 'picture' ? 'box' : mark.kind === 'shape' ? mark.shape : null;
  if (form !== 'box' && form !== 'oval') return points;
  const [[x1, y1], [x2, y2]] = points as [Point, Point];
  if (form === 'box')
    return [
      [x1, y1],
      [x2, y1],
      [x2, y2],
      [x1, y2],
      [x1, y1],
    ];
  return Array.from({ length: 25 }, (_, i): Point => {
    const angle = (i * Math.PI) / 12;
    return [
      (x1 + x2) / 2 + (Math.abs(x2 - x1) / 2) * Math.cos(angle),
      (y1 + y2) / 2 + (Math.abs(y2 - y1) / 2) * Math.sin(angle),
    ];
  });
}

/** The box that a mark takes up, in the board's units. */
export function boxOf(mark: Mark): Box {
  if (mark.kind === 'text') {
    const { x, y, width, height } = slipBox(mark);
    return { left: x, right: x + width, top: y, bottom: y + height };
  }
  const xs = lineOf(mark).map(([x]) => x);
  const ys = lineOf(mark).map(([, y]) => y);
  return {
    ...{ left: Math.min(...xs), right: Math.max(...xs) },
    ...{ top: Math.min(...ys), bottom: Math.max(...ys) },
  };
}

const within = ([x, y]: Point, { left, right, top, bottom }: Box, by = 0) =>
  x >= left - by && x <= right + by && y >= top - by && y <= bottom + by;

/** Whether a mark is touched at a point, in fractions of the board. */
export function isTouched(mark: Mark, at: Point): boolean {
  const point: Point = [at[0] * WIDTH, at[1] * HEIGHT];
  if (!within(point, boxOf(mark), NEAR)) return false;
  if (mark.kind === 'text' || mark.kind === 'picture') return true;
  const line = lineOf(mark);
  if (line.length === 1) return true;
  return line.some((to, i) => i > 0 && far(point, line[i - 1]!, to) <= NEAR);
}

/** The mark on top of those that are touched at a point; null where there is none. */
export const touchedAt = (marks: readonly Mark[], at: Point): Mark | null =>
  marks.findLast((m) => isTouched(m, at)) ?? null;

/** The marks that lie wholly in the box between two points, in fractions of the board. */
export function marksWithin(marks: readonly Mark[], a: Point, b: Point): Mark[] {
  const box: Box = {
    ...{ left: Math.min(a[0], b[0]) * WIDTH, right: Math.max(a[0], b[0]) * WIDTH },
    ...{ top: Math.min(a[1], b[1]) * HEIGHT, bottom: Math.max(a[1], b[1]) * HEIGHT },
  };
  return marks.filter((m) => {
    const { left, right, top, bottom } = boxOf(m);
    return within([left, top], box) && within([right, bottom], box);
  });
}

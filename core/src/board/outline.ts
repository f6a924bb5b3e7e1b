import { getStroke } from 'perfect-freehand';
import type { Stroke } from '../room/index';

export const WIDTH = 1600;
export const HEIGHT = 900;

/** The outline of a pen stroke as an SVG path; on a sheet of another shape its height is said, where it is WIDTH wide. */
export function outlineOf(points: readonly number[], height = HEIGHT): string {
  const pairs: [number, number][] = [];
  for (let i = 0; i + 1 < points.length; i += 2) pairs.push([points[i]! * WIDTH, points[i + 1]! * height]);
  const outline = getStroke(pairs, { size: 9, thinning: 0.4 });
  return outline.length ? `M${outline.map(([x, y]) => `${x!.toFixed(1)} ${y!.toFixed(1)}`).join('L')}Z` : '';
}

const known = new WeakMap<Stroke, string>();

/** A stroke that is drawn does not change: it is outlined once. */
export function outlineOnce(stroke: Stroke): string {
  let path = known.get(stroke);
  if (path === undefined) {
    path = outlineOf(stroke.points);
    known.set(stroke, path);
  }
  return path;
}

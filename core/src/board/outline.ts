import { getStroke } from 'perfect-freehand';
import type { Stroke } from '../room/index';

export const WIDTH = 1600;
export const HEIGHT = 900;

/** How wide a pen draws, and a broad one, in the board's units. */
const PEN = 9;
const BROAD = 26;

/** The outline of a pen stroke as an SVG path; on a sheet of another shape its height is said, where it is WIDTH wide. */
export function outlineOf(
  { points, pressure, broad }: Pick<Stroke, 'points' | 'pressure' | 'broad'>,
  height = HEIGHT,
): string {
  const felt: number[][] = [];
  for (let i = 0; i + 1 < points.length; i += 2)
    felt.push([points[i]! * WIDTH, points[i + 1]! * height, ...(pressure ? [pressure[i / 2] ?? 0.5] : [])]);
  const outline = getStroke(felt, {
    size: broad ? BROAD : PEN,
    thinning: pressure ? 0.7 : 0.4,
    simulatePressure: !pressure,
  });
  return outline.length ? `M${outline.map(([x, y]) => `${x!.toFixed(1)} ${y!.toFixed(1)}`).join('L')}Z` : '';
}

const known = new WeakMap<Stroke, string>();

/** A stroke that is drawn does not change: it is outlined once. */
export function outlineOnce(stroke: Stroke): string {
  let path = known.get(stroke);
  if (path === undefined) {
    path = outlineOf(stroke);
    known.set(stroke, path);
  }
  return path;
}

import type { Ground, PutShape } from '../room/index';
import { HEIGHT, WIDTH } from './outline';

/** How thick the lines of a shape are, in the board's units. */
export const SHAPE_LINE = 7;
/** How long the sides of an arrow's head are, and how far they are from its shaft. */
const HEAD = 34;
const HEAD_ANGLE = 0.45;

const n = (x: number) => x.toFixed(1);

/** A shape as an SVG path, to be drawn as a line. */
export function shapePath({ shape, from, to }: Pick<PutShape, 'shape' | 'from' | 'to'>): string {
  const [x1, y1] = [from[0] * WIDTH, from[1] * HEIGHT];
  const [x2, y2] = [to[0] * WIDTH, to[1] * HEIGHT];
  if (shape === 'box') return `M${n(x1)} ${n(y1)}H${n(x2)}V${n(y2)}H${n(x1)}Z`;
  if (shape === 'oval') {
    const [rx, ry] = [Math.abs(x2 - x1) / 2, Math.abs(y2 - y1) / 2];
    const [left, middle] = [Math.min(x1, x2), (y1 + y2) / 2];
    const half = (by: number) => `a${n(rx)} ${n(ry)} 0 1 0 ${n(by)} 0`;
    return `M${n(left)} ${n(middle)}${half(2 * rx)}${half(-2 * rx)}Z`;
  }
  const line = `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}`;
  if (shape === 'line') return line;
  const along = Math.atan2(y2 - y1, x2 - x1);
  const side = (turn: number) =>
    `M${n(x2)} ${n(y2)}L${n(x2 - HEAD * Math.cos(along + turn))} ${n(y2 - HEAD * Math.sin(along + turn))}`;
  return line + side(HEAD_ANGLE) + side(-HEAD_ANGLE);
}

const SQUARE = 50;
const RULED = 75;
const TICK = 100;

const steps = (of: number, until: number) =>
  Array.from({ length: Math.ceil(until / of) - 1 }, (_, i) => (i + 1) * of);
const across = (y: number) => `M0 ${y}H${WIDTH}`;
const down = (x: number) => `M${x} 0V${HEIGHT}`;

/** What a side is ruled with, as an SVG path; empty where it is plain. */
export function groundPath(ground: Ground): string {
  if (ground === 'plain') return '';
  if (ground === 'ruled') return steps(RULED, HEIGHT).map(across).join('');
  if (ground === 'squared')
    return steps(SQUARE, WIDTH).map(down).join('') + steps(SQUARE, HEIGHT).map(across).join('');
  const [x, y] = [WIDTH / 2, HEIGHT / 2];
  const ticks = [
    ...steps(TICK, WIDTH).map((at) => `M${at} ${y - 9}v18`),
    ...steps(TICK, HEIGHT).map((at) => `M${x - 9} ${at - (y % TICK)}h18`),
  ];
  return across(y) + down(x) + ticks.join('');
}

export type At = readonly [x: number, y: number];

/** How many times as large as its window one may have a board. */
export const NEAREST = 4;

/** What is held of a board: a point of it, as fractions of it; how large it was then, and how far apart the fingers, px. */
export interface Held {
  of: At;
  near: number;
  apart: number;
}

/** A board in its window: so many times as large as it, its upper left corner so many px from the window's, which it covers. */
export interface Lying {
  near: number;
  left: number;
  top: number;
}

/** The point of a board that lies under a place in its window, as fractions of the board; its corner while the window has no size. */
export const pointUnder = ({ near, left, top }: Lying, [width, height]: At, [x, y]: At): At => [
  (x - left) / (width * near || 1),
  (y - top) / (height * near || 1),
];

/** How a board lies whose held point is under this place in its window by now, the fingers being so far apart: the point stays under them, as far as the board covers its window. */
export function pinched({ of, near: was, apart }: Held, [width, height]: At, [x, y]: At, now: number): Lying {
  const near = Math.min(NEAREST, Math.max(1, (was * now) / apart));
  const covering = (size: number, offset: number) => Math.min(0, Math.max(size - size * near, offset));
  return {
    near,
    left: covering(width, x - of[0] * width * near),
    top: covering(height, y - of[1] * height * near),
  };
}

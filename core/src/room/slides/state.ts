import type { Place } from '../kernel/schema';
import type { Stroke } from '../board/schema';

/** What is shown page by page: a file of the class, known by what is in it. */
export interface Deck {
  /** SHA-256 of the file, in hexadecimal digits. */
  id: string;
  name: string;
  kind: 'pdf' | 'picture';
  /** How many pages it has, 1 and up. */
  pages: number;
}

/** How a class leafs: with whoever teaches, back through what was shown, or anywhere. */
export type Leafing = 'together' | 'back' | 'freely';

/** How much of a page is seen, by everybody: enlarged so many times around a point, in fractions of the page. */
export interface Frame {
  fit: 'page' | 'width';
  zoom: number;
  x: number;
  y: number;
}
export const WHOLE_PAGE: Frame = { fit: 'page', zoom: 1, x: 0.5, y: 0.5 };
/** A page is enlarged so many times at most. */
export const MOST_ZOOM = 8;

/** A deck as it lies open in a place. */
export interface Shown {
  deck: Deck;
  page: number;
  leafing: Leafing;
  frame: Frame;
  by: string;
}

/** A pen's stroke on a page; its points are fractions of the page. */
export interface PageMark extends Stroke {
  seq: number;
  by: string;
  place: Place;
  deck: string;
  page: number;
}

export interface SlidesState {
  /** What lies open, by place. */
  on: Readonly<Record<Place, Shown>>;
  /** The pages that were shown, by place and deck, in the order in which they were first. */
  seen: Readonly<Record<Place, Readonly<Record<string, readonly number[]>>>>;
  marks: readonly PageMark[];
}

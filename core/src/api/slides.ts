import type { Deck } from '../room/index';

/** A file that can be shown page by page, as those who teach see it before and in class. */
export interface DeckInfo {
  material: string;
  name: string;
  bytes: number;
  /** As it is shown; null until it is taken apart. */
  deck: Deck | null;
  /** So many pages of so many are ready; null where nothing is under way. */
  preparing: { done: number; of: number } | null;
  /** Why it cannot be shown. */
  why: string | null;
}

/** What goes with the pages of a deck, for those who teach. */
export interface DeckText {
  /** What is read on each page, from the first. */
  words: string[];
  /** What was noted to a page, by its number. */
  notes: Record<number, string>;
}

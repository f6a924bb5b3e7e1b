import { z } from 'zod';
import { prose } from '../text';

/** From so many on they are shown; and then by so many more at once, so that nobody sees which one came last. */
export const TOGETHER = 5;
/** Until so long after a class one may say it, ms. */
export const SAID_UNTIL_MS = 48 * 3_600_000;

/** What somebody thought of a class: one to five, and a word. */
export const ThoughtInput = z.object({
  stars: z.int('One to five.').min(1, 'One to five.').max(5, 'One to five.'),
  words: prose(280),
});
export type Thought = z.infer<typeof ThoughtInput>;

/** What the class thought, as those who teach have it. */
export interface Thoughts {
  /** How many said something, also where it is not shown. */
  said: number;
  /** How many gave one to five, of those that are shown. */
  stars: [number, number, number, number, number];
  words: string[];
}

/**
 * What may be shown of what was said, in the order in which it came: groups of five, each as one. Words stand by the
 * alphabet: no place in them tells when they came.
 */
export function thoughtsShown(all: readonly Thought[]): Thoughts {
  const shown = all.slice(0, TOGETHER * Math.floor(all.length / TOGETHER));
  const stars: Thoughts['stars'] = [0, 0, 0, 0, 0];
  for (const t of shown) stars[t.stars - 1]!++;
  return {
    said: all.length,
    stars,
    words: shown.flatMap((t) => t.words || []).sort((a, b) => a.localeCompare(b)),
  };
}

/** The mean of what is shown, to a tenth; null where nothing is. */
export function meanOf({ stars }: Pick<Thoughts, 'stars'>): number | null {
  const count = stars.reduce((sum, n) => sum + n, 0);
  const sum = stars.reduce((all, n, i) => all + n * (i + 1), 0);
  return count ? Math.round((10 * sum) / count) / 10 : null;
}

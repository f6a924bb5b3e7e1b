import type { Stretch } from '../recording/mixing';

/** So much of a silence stays on either side: speech keeps its breath, ms. */
const BREATH_MS = 400;

/** What is passed over of a silence; null where it is too short for that. */
const passed = ({ from, until }: Stretch): Stretch | null =>
  until - from > 2 * BREATH_MS + 500 ? { from: from + BREATH_MS, until: until - BREATH_MS } : null;

/** Where to go from a moment in a silence; null where somebody is heard. All in ms. */
export function pastSilence(silences: readonly Stretch[], at: number): number | null {
  for (const silence of silences) {
    const over = passed(silence);
    if (over && at >= over.from && at < over.until) return over.until;
  }
  return null;
}

/** How much shorter a recording is without its silences, ms. */
export const savedBy = (silences: readonly Stretch[]): number =>
  silences.reduce((sum, s) => {
    const over = passed(s);
    return sum + (over ? over.until - over.from : 0);
  }, 0);

import type { Fate } from '@nimble-bell/core/recording';

/** What becomes of a stretch, as one reads it. */
export const FATE_WORDS: Record<Fate, string> = {
  kept: 'Told as it was',
  silent: 'Without its sound',
  unseen: 'Without its pictures',
  out: 'Left out',
};

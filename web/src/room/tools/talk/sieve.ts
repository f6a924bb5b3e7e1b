import type { Message } from '@nimble-bell/core/room';
import { folded } from '@nimble-bell/core/compare';

/** Which of what was written is shown. */
export interface Sieve {
  words: string;
  /** Of questions that were kept: all, or those without an answer. */
  kept: 'all' | 'later' | null;
}
export const NO_SIEVE: Sieve = { words: '', kept: null };

/** What passes: every word of what is looked for, in a message or in the name of whom it is from. */
export function sieved(
  messages: readonly Message[],
  { words, kept }: Sieve,
  nameOf: (member: string) => string,
): readonly Message[] {
  const wanted = folded(words).split(/\s+/).filter(Boolean);
  if (!wanted.length && !kept) return messages;
  return messages.filter((m) => {
    if (kept === 'later' ? m.kept !== 'later' : kept === 'all' && !m.kept) return false;
    const said = folded(`${nameOf(m.from)} ${m.text}`);
    return wanted.every((w) => said.includes(w));
  });
}

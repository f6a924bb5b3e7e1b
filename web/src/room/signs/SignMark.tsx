import type { Sign } from '@nimble-bell/core/room';

/** What each sign looks like: strokes on 16 by 16. */
const STROKES: Record<Sign, string> = {
  // Two waves beside each other.
  withYou: 'M1 6q3.5-4 7 0t7 0M1 11q3.5-4 7 0t7 0',
  // A path that turns in on itself.
  lost: 'M8 8a1.5 1.5 0 1 1 2 1.5A3.5 3.5 0 1 1 11.5 5 6 6 0 1 1 4 3',
  // A pace that goes down, and up.
  slower: 'M2 2c1 8 4 11 11 11M10 10l3.5 3-3.5 2.5',
  faster: 'M2 13c7 0 10-3 11-10M9.5 5.5L13 2l2.5 4',
  // A sun that sets.
  break: 'M1 12h14M4 12a4 4 0 0 1 8 0M8 3v2M2.5 6l1.5 1.5M13.5 6L12 7.5',
  agree: 'M2 9l4 4 8-10',
  // A seat that stands empty.
  away: 'M3 2v8M13 2v8M3 10h10M3 14v-4M13 14v-4',
};

export const SignMark = ({ sign, size = 15 }: { sign: Sign; size?: number }) => (
  <svg viewBox="0 0 16 16" width={size} height={size} data-mark={`sign-${sign}`} aria-hidden>
    <path d={STROKES[sign]} stroke="currentColor" strokeWidth="1.8" fill="none" strokeLinecap="round" />
  </svg>
);

/** The least width of what is pressed, in pixels (WCAG 2.5.8). */
export const TARGET_PX = 24;
/** Marks nearer than this to each other lie on one pile. */
export const PILE_PX = 6.5;

/** Things along a line that are pressed as one, and the stretch on which they are. */
export interface Crowd<T> {
  from: number;
  to: number;
  those: T[];
}

/**
 * Things along a line, each where it stands, taken together where they are too near to be pressed one by one. The
 * stretches are at least as wide as a target, do not lie over each other, and each holds its own things.
 */
export function crowds<T>(things: readonly T[], at: (thing: T) => number): Crowd<T>[] {
  const found: Crowd<T>[] = [];
  let first = 0;
  for (const thing of [...things].sort((a, b) => at(a) - at(b))) {
    const x = at(thing);
    const last = found.at(-1);
    if (last && x - first < TARGET_PX) {
      last.those.push(thing);
      last.to = Math.max(last.to, x);
      continue;
    }
    first = x;
    const from = Math.max(x - TARGET_PX / 2, last?.to ?? -Infinity);
    found.push({ from, to: from + TARGET_PX, those: [thing] });
  }
  return found;
}

/** Those of a crowd that lie on each other, the first of each pile where it stands. */
export function piles<T>(those: readonly T[], at: (thing: T) => number): T[][] {
  const found: T[][] = [];
  for (const thing of those) {
    const last = found.at(-1);
    if (last && at(thing) - at(last[0]!) < PILE_PX) last.push(thing);
    else found.push([thing]);
  }
  return found;
}

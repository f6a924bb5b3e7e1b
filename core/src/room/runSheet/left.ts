import type { CuedSegment } from './schema';

/** A segment that is still to come, by where it stands, with its minutes. */
export interface Left {
  index: number;
  minutes: number;
}

/** How what is left of a class is planned anew. */
export interface Proposal {
  way: 'shrink' | 'drop';
  left: Left[];
}

/**
 * What is left of a class in the minutes that there are, where they are too few: everything shorter by its share, in
 * whole minutes, at least one each; or the last ones dropped, the one that no longer fits whole cut short. Empty where
 * all fits.
 */
export function proposals(segments: readonly CuedSegment[], at: number, minutes: number): Proposal[] {
  const coming: Left[] = segments.slice(at + 1).map((s, i) => ({ index: at + 1 + i, minutes: s.minutes }));
  const wanted = coming.reduce((sum, l) => sum + l.minutes, 0);
  const have = Math.floor(minutes);
  if (!coming.length || wanted <= have) return [];
  const drop: Left[] = [];
  let room = have;
  for (const { index, minutes: own } of coming) {
    if (room < 1) break;
    drop.push({ index, minutes: Math.min(own, room) });
    room -= own;
  }
  const dropping: Proposal = { way: 'drop', left: drop };
  return have < coming.length
    ? [dropping]
    : [{ way: 'shrink', left: shrunk(coming, wanted, have) }, dropping];
}

/** Each its share, by largest remainder: the whole is what there is. */
function shrunk(coming: readonly Left[], wanted: number, have: number): Left[] {
  const shares = coming.map((l) => Math.max(1, (l.minutes * have) / wanted));
  const minutes = shares.map(Math.floor);
  const spare = () => have - minutes.reduce((a, b) => a + b, 0);
  const byRest = shares.map((s, i) => ({ i, rest: s - Math.floor(s) })).sort((a, b) => b.rest - a.rest);
  for (let k = 0; spare() > 0; k = (k + 1) % byRest.length) minutes[byRest[k]!.i]!++;
  while (spare() < 0) minutes[minutes.indexOf(Math.max(...minutes))]!--;
  return coming.map((l, i) => ({ index: l.index, minutes: minutes[i]! }));
}

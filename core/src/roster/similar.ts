import { folded } from './same';

const partsOf = (name: string): string[] =>
  folded(name.normalize('NFKC'))
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** How many letters must be changed, added or left out to make one word the other; counted up to `most`. */
export function distance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)));
    if (Math.min(...next) > most) return most + 1;
    row = next;
  }
  return row[b.length]!;
}

/** A slip in a short word makes another word of it. */
const near = (a: string, b: string): boolean =>
  a === b || distance(a, b, 2) <= Math.max(a.length, b.length) / 4;
const isInitial = (a: string, b: string) => a.length === 1 && b.startsWith(a);

/**
 * Whether two names may be of one person: each part of the shorter is like one in the longer, or its first letter, and one
 * is more than a letter. "Ana", "A. Lanyon" and "Anna Lanion" are like "Ana Lanyon"; "Ben Garrow" and "A." are not.
 */
export function similarNames(a: string, b: string): boolean {
  const [short, long] = [partsOf(a), partsOf(b)].sort((x, y) => x.length - y.length) as [string[], string[]];
  const left = [...long];
  let words = 0;
  for (const part of short) {
    const i = left.findIndex(
      (other) => near(part, other) || isInitial(part, other) || isInitial(other, part),
    );
    if (i < 0) return false;
    const [other] = left.splice(i, 1);
    if (Math.min(part.length, other!.length) > 1) words++;
  }
  return words > 0;
}

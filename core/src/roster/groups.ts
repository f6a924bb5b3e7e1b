import { randomFrom, shuffle } from '../shuffle';

/** A class split into groups: the ids of each group's people. */
export interface SmallGroup {
  name: string;
  people: string[];
}

/** "A" to "Z", then "AA", "AB" and so on. */
export function groupName(index: number): string {
  const rest = Math.floor(index / 26) - 1;
  return (rest < 0 ? '' : groupName(rest)) + String.fromCharCode(65 + (index % 26));
}

export interface Person {
  id: string;
  /** What the column says of this person: level, section, zone. */
  value?: string;
}

export type SplitWay = 'random' | 'together' | 'mixed';

/**
 * Splits people into groups of at most `size`, as few as that needs and as equal as can be. `random` deals them out;
 * `together` puts those with the same value into the same groups; `mixed` spreads each value over all groups. The same
 * people, size and seed give the same groups, in whatever order the people come.
 */
export function splitInto(
  people: readonly Person[],
  size: number,
  way: SplitWay,
  seed: number,
): SmallGroup[] {
  const shuffled = shuffle(
    [...people].sort((a, b) => (a.id < b.id ? -1 : 1)),
    randomFrom(seed),
  );
  if (way === 'together')
    return named([...byValue(shuffled).values()].flatMap((own) => deal(own, Math.ceil(own.length / size))));
  const order = way === 'mixed' ? [...byValue(shuffled).values()].flat() : shuffled;
  return named(deal(order, Math.ceil(order.length / size)));
}

/** By value, in the values' own order. */
function byValue(people: readonly Person[]): Map<string, Person[]> {
  const groups = new Map<string, Person[]>();
  for (const value of [...new Set(people.map((p) => p.value ?? ''))].sort())
    groups.set(
      value,
      people.filter((p) => (p.value ?? '') === value),
    );
  return groups;
}

/** One after another, like cards: sizes differ by one at most. */
function deal(people: readonly Person[], groups: number): Person[][] {
  const hands: Person[][] = Array.from({ length: groups }, () => []);
  for (const [i, person] of people.entries()) hands[i % groups]!.push(person);
  return hands;
}

const named = (groups: Person[][]): SmallGroup[] =>
  groups.map((own, i) => ({ name: groupName(i), people: own.map((p) => p.id) }));

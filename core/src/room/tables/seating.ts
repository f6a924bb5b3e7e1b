import { randomFrom, shuffle } from '../../shuffle';
import { COMPANY, type TablesState } from './state';

/** Who sits together: the members of each table. */
export type Seating = readonly (readonly string[])[];

export const pairOf = (a: string, b: string): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** All pairs of a table that is small enough to meet at. */
export function pairsOf(table: readonly string[]): string[] {
  if (table.length > COMPANY) return [];
  return table.flatMap((a, i) => table.slice(i + 1).map((b) => pairOf(a, b)));
}

/** How often those who sit together now have sat together before. */
export const repeatedIn = (seating: Seating, met: TablesState['met']): number =>
  seating.flatMap(pairsOf).reduce((sum, pair) => sum + (met[pair] ?? 0), 0);

const TRIES = 6;
const SWAPS = 400;

/**
 * People at so many tables by lot: as equal as can be, and nobody with whom they have sat before, as far as that is found.
 * The same people, tables, seed and pairs that met give the same seating, in whatever order the people come.
 */
export function seatedByLot(
  members: readonly string[],
  tables: number,
  seed: number,
  met: TablesState['met'] = {},
): string[][] {
  const random = randomFrom(seed);
  let best: { seating: string[][]; cost: number } | null = null;
  for (let i = 0; i < TRIES && best?.cost !== 0; i++) {
    const seating = dealt(shuffle([...members].sort(), random), tables);
    const cost = improved(seating, met, random);
    if (!best || cost < best.cost) best = { seating, cost };
  }
  return best!.seating;
}

/** One after another: sizes differ by one at most. */
function dealt(members: readonly string[], tables: number): string[][] {
  const hands: string[][] = Array.from({ length: tables }, () => []);
  for (const [i, member] of members.entries()) hands[i % tables]!.push(member);
  return hands;
}

/**
 * Whoever sits with somebody again changes seats with whom it helps most, as long as anybody does; of several that help as
 * much the lot falls on one, so that it does not go around in a circle. Gives what is left of it.
 */
function improved(seating: string[][], met: TablesState['met'], random: () => number): number {
  if (seating.some((t) => t.length > COMPANY)) return 0;
  const withOthers = (table: readonly string[], at: number, member: string) =>
    table.reduce((sum, m, i) => sum + (i === at ? 0 : (met[pairOf(m, member)] ?? 0)), 0);
  let cost = repeatedIn(seating, met);
  for (let i = 0; i < SWAPS && cost > 0; i++) {
    const again = seating.flatMap((t) => t.flatMap((m, at) => (withOthers(t, at, m) ? [{ t, at }] : [])));
    const { t: a, at } = again[Math.floor(random() * again.length)]!;
    const x = a[at]!;
    let best = { less: -Infinity, b: a, to: at };
    for (const b of seating)
      for (let to = 0; b !== a && to < b.length; to++) {
        const y = b[to]!;
        const before = withOthers(a, at, x) + withOthers(b, to, y);
        const less = before - withOthers(a, at, y) - withOthers(b, to, x) + random() / 2;
        if (less > best.less) best = { less, b, to };
      }
    [a[at], best.b[best.to]] = [best.b[best.to]!, x];
    cost = repeatedIn(seating, met);
  }
  return cost;
}

/** Those who have no seat, each where fewest sit: the earlier table of equals. */
export function withTheRest(seating: Seating, rest: readonly string[]): string[][] {
  const tables = seating.map((t) => [...t]);
  for (const member of rest) fewest(tables).push(member);
  return tables;
}

export const fewest = <T extends { length: number }>(tables: readonly T[]): T =>
  tables.reduce((least, t) => (t.length < least.length ? t : least));

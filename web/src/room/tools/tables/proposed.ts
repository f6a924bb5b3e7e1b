import { seatedByLot, type RoomState } from '@nimble-bell/core/room';

export type Way = 'lot' | 'groups' | 'choice';

interface Person {
  member: string;
  group: string | null;
}

interface Proposed {
  way: Way;
  /** How many tables. */
  count: number;
  seed: number;
  /** Who was seated elsewhere by hand, and at which table. */
  moved: Readonly<Record<string, number>>;
}

/** Who would sit where: by lot those who are here, by the class list's groups also who may come yet. */
export function proposedTables(
  people: readonly Person[],
  here: ReadonlySet<string>,
  met: RoomState['tables']['met'],
  { way, count, seed, moved }: Proposed,
): { name: string; members: string[] }[] {
  const tables = firstly(people, here, met, { way, count, seed });
  return tables.map(({ name, members }, i) => ({
    name,
    members: [
      ...members.filter((m) => (moved[m] ?? i) === i),
      ...Object.keys(moved).filter((m) => moved[m] === i && !members.includes(m)),
    ],
  }));
}

function firstly(
  people: readonly Person[],
  here: ReadonlySet<string>,
  met: RoomState['tables']['met'],
  { way, count, seed }: Pick<Proposed, 'way' | 'count' | 'seed'>,
): { name: string; members: string[] }[] {
  const named = (members: readonly (readonly string[])[]) =>
    members.map((of, i) => ({ name: `Table ${i + 1}`, members: [...of] }));
  if (way === 'choice') return named(Array.from({ length: count }, () => []));
  if (way === 'lot') {
    const some = people.filter((p) => here.has(p.member)).map((p) => p.member);
    return named(seatedByLot(some, count, seed, met));
  }
  return groupsOf(people).map((group) => ({
    name: `Group ${group}`,
    members: people.filter((p) => p.group === group).map((p) => p.member),
  }));
}

export const groupsOf = (people: readonly Person[]): string[] =>
  [...new Set(people.flatMap((p) => p.group ?? []))].sort();

/** Four at a table, but for a class that is too small or too large for it. */
export const usualCount = (people: number): number => Math.min(30, Math.max(2, Math.round(people / 4)));

/** "6 at each", "6 or 7 at each". */
export function sizeWords(tables: readonly { members: readonly string[] }[]): string {
  const sizes = tables.map((t) => t.members.length);
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  if (most - least > 1) return `${least} to ${most} at each`;
  return least === most ? `${least} at each` : `${least} or ${most} at each`;
}

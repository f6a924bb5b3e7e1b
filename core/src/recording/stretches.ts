import type { Stretch } from './mixing';

/** In their order, what overlaps or follows without a break as one. */
export function joined(stretches: readonly Stretch[]): Stretch[] {
  const all: Stretch[] = [];
  for (const { from, until } of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = all.at(-1);
    if (last && from <= last.until) last.until = Math.max(last.until, until);
    else all.push({ from, until });
  }
  return all;
}

/** What lies in both; each in order and without overlaps. */
export const common = (some: readonly Stretch[], others: readonly Stretch[]): Stretch[] =>
  some.flatMap((one) =>
    others.flatMap((other) => {
      const [from, until] = [Math.max(one.from, other.from), Math.min(one.until, other.until)];
      return from < until ? [{ from, until }] : [];
    }),
  );

/** What lies in the first and in none of the others; each in order and without overlaps. */
export function without(some: readonly Stretch[], others: readonly Stretch[]): Stretch[] {
  const gaps: Stretch[] = [];
  let from = -Infinity;
  for (const other of others) {
    gaps.push({ from, until: other.from });
    from = other.until;
  }
  return common(some, [...gaps, { from, until: Infinity }]);
}

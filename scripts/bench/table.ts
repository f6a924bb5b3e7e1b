export interface Figure {
  what: string;
  ours: string;
  peer: string;
  theirs: string;
  /** Ours over the peer's, or the peer's over ours, as `what` says. */
  ratio: string;
  wanted: string;
}

/** The p-th percentile, p from 0 to 1. */
export function percentile(values: readonly number[], p: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))]!;
}

export const ms = (n: number) =>
  n < 10 ? `${n.toFixed(2)} ms` : n < 1000 ? `${n.toFixed(1)} ms` : `${(n / 1000).toFixed(2)} s`;

export function print(figures: readonly Figure[]): void {
  const head: Figure = {
    what: 'what',
    ours: 'ours',
    peer: 'beside',
    theirs: 'theirs',
    ratio: 'ratio',
    wanted: 'wanted',
  };
  const keys = Object.keys(head) as (keyof Figure)[];
  const rows = [head, ...figures];
  const widths = keys.map((k) => Math.max(...rows.map((r) => r[k].length)));
  const line = (row: Figure) =>
    keys
      .map((k, i) => row[k].padEnd(widths[i]!))
      .join('  ')
      .trimEnd();
  process.stdout.write(
    `\n${line(head)}\n${widths.map((w) => '-'.repeat(w)).join('  ')}\n${figures.map(line).join('\n')}\n`,
  );
}

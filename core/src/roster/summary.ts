import type { BadRow, ListRow } from './classList';
import type { ChangedMember, Comparison, KnownMember, Settled } from './compare';
import type { Field } from './headings';
import type { LeftOut, RosterClass } from './oneRoster';
import type { ListAnswer } from './readFiles';

/** The first of many, and how many there are. */
export interface Some<T> {
  count: number;
  first: T[];
}

/** A list as it was read and compared, small enough to be shown at once however long it is. */
export interface ListSummary {
  headings: string[];
  fields: Field[];
  fault: string | null;
  bad: Some<BadRow>;
  fresh: Some<ListRow>;
  changed: Some<ChangedMember>;
  gone: Some<KnownMember> & { ids: string[] };
  alike: Some<Comparison['alike'][number]>;
  twins: Some<Comparison['twins'][number]>;
  /** Whom a set names and leaves out, with why. */
  leftOut: Some<LeftOut>;
  same: number;
  teaching: number;
  classes: RosterClass[] | null;
  encoding: string | null;
}

const MOST = 25;
const some = <T>(all: readonly T[]): Some<T> => ({ count: all.length, first: all.slice(0, MOST) });

export function summaryOf({ list, comparison, classes, leftOut, encoding }: ListAnswer): ListSummary {
  const { fresh, changed, gone, alike, twins, same, teaching } = comparison;
  return {
    headings: list.headings,
    fields: list.fields,
    fault: list.fault,
    bad: some(list.bad),
    fresh: some(fresh),
    changed: some(changed),
    gone: { ...some(gone), ids: gone.map((m) => m.id) },
    alike: some(alike),
    twins: some(twins),
    leftOut: some(leftOut),
    same,
    teaching: teaching.length,
    classes,
    encoding,
  };
}

/** The kinds of rows that a summary has the first of. */
export type RowKind = 'bad' | 'fresh' | 'changed' | 'gone' | 'alike' | 'twins' | 'leftOut';

/** The next rows of a kind: all of them can be seen, a page at a time. */
export function rowsOf(answer: ListAnswer, kind: RowKind, from: number, count: number): unknown[] {
  const { list, comparison, leftOut } = answer;
  const all = kind === 'bad' ? list.bad : kind === 'leftOut' ? leftOut : comparison[kind];
  return all.slice(from, from + count);
}

/** The edit of the class list that a comparison comes to. */
export const importOf = (
  comparison: Comparison,
  settled: Settled,
  chosen: { drop: string[]; invite: boolean },
) => ({
  edit: 'import' as const,
  rows: [...comparison.fresh, ...comparison.changed.map((c) => c.row)],
  settled: [...settled].map(([line, as]) => ({ line, as })),
  ...chosen,
});

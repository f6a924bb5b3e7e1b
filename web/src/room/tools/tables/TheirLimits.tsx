import { NativeSelect } from '@mantine/core';
import { useMemo } from 'react';
import type { RulesDetail } from '@nimble-bell/core/api';
import { doneAtTables, OPEN_AT_TABLES } from '@nimble-bell/core/limits';
import type { TableLimits } from '@nimble-bell/core/room';
import { useAsked } from '../../../app/queries';
import { useInfo } from '../../live/useRoom';

/** What is said of tables: limits, and the rule sheet by whose name they are said. */
export type Said = Pick<TableLimits, 'limits' | 'sheet'>;

export const OPEN: Said = { limits: OPEN_AT_TABLES, sheet: '' };
const AS_IN_CLASS: Said = { limits: {}, sheet: '' };

const same = (a: Said, b: Said) =>
  a.sheet === b.sheet && (a.sheet !== '' || JSON.stringify(a.limits) === JSON.stringify(b.limits));

/** All that can be said of tables: everything open, nothing of their own, or what a rule sheet says. */
function useSayings(now: Said): { name: string; about: string; said: Said }[] {
  const { course } = useInfo();
  const rules = useAsked<RulesDetail>(`/courses/${course.id}/rules`);
  const sheets = rules.data?.sheets;
  return useMemo(() => {
    const all = [
      { name: 'Everything open', about: 'They speak, show themselves, present, draw and write', said: OPEN },
      {
        name: 'As in the class',
        about: 'What is open or closed in the class is so there',
        said: AS_IN_CLASS,
      },
      ...(sheets ?? []).map(({ name, about, limits }) => ({
        ...{ name, about },
        said: { limits: doneAtTables(limits), sheet: name },
      })),
    ];
    // What was said by a sheet that is not had here is told all the same.
    return all.some(({ said }) => same(said, now))
      ? all
      : [...all, { name: now.sheet || 'As it was set', about: '', said: now }];
  }, [sheets, now]);
}

interface Props {
  label: string;
  now: Said;
  set: (said: Said) => void;
  /** In a row of other controls: its label is for whoever does not see the row. */
  inRow?: boolean;
}

/** What students may at the tables, by one of the rule sheets or without. */
export default function TheirLimits({ label, now, set, inRow = false }: Props) {
  const sayings = useSayings(now);
  const chosen = sayings.findIndex(({ said }) => same(said, now));
  return (
    <NativeSelect
      {...(inRow
        ? { 'aria-label': label, title: label, size: 'xs' }
        : { label, description: sayings[chosen]?.about })}
      data={sayings.map(({ name }, i) => ({ value: String(i), label: inRow ? `Limits: ${name}` : name }))}
      value={String(chosen)}
      onChange={(e) => set(sayings[Number(e.currentTarget.value)]!.said)}
    />
  );
}

import { useState } from 'react';
import type { CutTable } from '@nimble-bell/core/api';
import { UNCUT, type CutList } from '@nimble-bell/core/recording';

/** So many steps can be taken back. */
const MOST = 200;

/** The cut that is in force, or none. */
export const inForceOf = ({ history, inForce }: Pick<CutTable, 'history' | 'inForce'>): CutList => {
  const found = history.find((c) => c.number === inForce);
  return found ? { marks: found.marks, nobody: found.nobody } : UNCUT;
};

export interface Draft {
  cut: CutList;
  /** Whether it is other than what is in force. */
  changed: boolean;
  /** Another, which can be taken back. */
  change: (next: Partial<CutList>) => void;
  back: (() => void) | null;
  /** What is in force once more. */
  drop: () => void;
}

/** How somebody is about to cut a recording: what is in force until they change it. */
export function useDraft(table: CutTable): Draft {
  const [steps, setSteps] = useState<CutList[]>([]);
  const standing = inForceOf(table);
  const cut = steps.at(-1) ?? standing;
  return {
    cut,
    changed: JSON.stringify(cut) !== JSON.stringify(standing),
    change: (next) => setSteps((all) => [...all.slice(-MOST), { ...(all.at(-1) ?? standing), ...next }]),
    back: steps.length ? () => setSteps((all) => all.slice(0, -1)) : null,
    drop: () => setSteps([]),
  };
}

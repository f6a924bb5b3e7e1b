import type { ReactNode } from 'react';
import { LAYER_WORDS, PERMISSION_WORDS, type Rung } from '@nimble-bell/core/limits';
import { PermissionMark } from './PermissionMark';
import classes from './ladder.module.css';

interface LadderProps {
  rungs: readonly Rung[];
  /** By whom and since when, where somebody said it. */
  who: (rung: Rung) => string;
  /** The way to where a rung is set. */
  way?: (rung: Rung) => ReactNode;
}

/** Why a value is as it is: its layers, the narrowest on top, the one in force marked. */
export function Ladder({ rungs, who, way }: LadderProps) {
  return (
    <ol className={classes.ladder}>
      {rungs.map((r) => (
        <li key={r.layer} data-in-force={r.inForce || undefined}>
          {r.state ? <PermissionMark state={r.state} /> : <span />}
          <span>
            <strong>{LAYER_WORDS[r.layer]}</strong>
            {r.state ? `: ${PERMISSION_WORDS[r.state].toLowerCase()}` : ' says nothing of it'}
            {r.inForce && <em> in force</em>}
            {who(r) && <small>{who(r)}</small>}
            {way?.(r)}
          </span>
        </li>
      ))}
    </ol>
  );
}

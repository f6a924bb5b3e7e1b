import { Popover } from '@mantine/core';
import { useMemo } from 'react';
import type { Capability } from '@nimble-bell/core/api';
import { clockWords, instantWords } from '@nimble-bell/core/calendar';
import { ladderOf, LAYER_WORDS, PERMISSION_WORDS, rowOf, type Rung } from '@nimble-bell/core/limits';
import { layersOf } from '@nimble-bell/core/room';
import { PermissionMark } from '../../ui/PermissionMark';
import { useInfo, useInside, useNameOf, type Inside } from '../live/useRoom';
import classes from './why.module.css';

const sameRungs = (a: readonly Rung[], b: readonly Rung[]) => JSON.stringify(a) === JSON.stringify(b);

/** A capability's name, which says why it is as it is when it is pressed: the ladder of its layers. */
export function Why({ capability }: { capability: Capability }) {
  const { label } = rowOf(capability);
  return (
    <Popover width={290} position="right-start" withArrow shadow="md">
      <Popover.Target>
        <button type="button" className={classes.why} aria-label={`Why: ${label}`}>
          {label}
        </button>
      </Popover.Target>
      <Popover.Dropdown aria-label={`Why: ${label}`}>
        <Ladder capability={capability} />
      </Popover.Dropdown>
    </Popover>
  );
}

function Ladder({ capability }: { capability: Capability }) {
  const select = useMemo(
    () =>
      ({ room }: Inside) =>
        ladderOf(layersOf(room), capability),
    [capability],
  );
  const rungs = useInside(select, sameRungs);
  const nameOf = useNameOf();
  const { zone } = useInfo();
  const who = ({ layer, by, at }: Rung) => {
    const when =
      at && at > 1
        ? layer === 'live' || layer === 'hush'
          ? clockWords(at, zone)
          : instantWords(at, zone)
        : null;
    return [by && nameOf(by), when].filter(Boolean).join(', ');
  };
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
          </span>
        </li>
      ))}
    </ol>
  );
}

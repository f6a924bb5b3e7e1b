import { Popover } from '@mantine/core';
import { lazy, Suspense } from 'react';
import type { Capability } from '@nimble-bell/core/api';
import { rowOf } from '@nimble-bell/core/limits';
import classes from './why.module.css';

// Asked for by a press.
const RoomLadder = lazy(() => import('./RoomLadder'));

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
        <Suspense>
          <RoomLadder capability={capability} />
        </Suspense>
      </Popover.Dropdown>
    </Popover>
  );
}

import { Button, Popover } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { useInside, useNameOf, useRoom, type Inside } from '../live/useRoom';
import { SmallButton } from '../../ui/SmallButton';
import { ActButton } from '../controls/ActButton';
import parts from '../frame/parts.module.css';
import classes from './door.module.css';

// Seldom asked for.
const BringIn = lazy(() => import('./BringIn'));

const select = ({ room }: Inside) => room.door;

/** The door's lock, and who was put out or turned away, with the way back. */
export function Lock() {
  const { locked, out } = useInside(select, Object.is);
  const { send } = useRoom();
  const nameOf = useNameOf();
  const gone = Object.keys(out);
  return (
    <>
      <ActButton
        act="lock"
        pressed={locked !== null}
        onClick={() => void send({ type: locked ? 'unlock' : 'lock' })}
      >
        {locked ? 'Unlock the door' : 'Lock the door'}
      </ActButton>
      <Uninvited />
      {gone.length > 0 && (
        <>
          <h2 className={parts.heading}>Put out</h2>
          {gone.map((member) => (
            <div key={member} className={classes.knock}>
              <span className={classes.name}>
                <bdi>{nameOf(member)}</bdi>
                {out[member]!.reason && `: ${out[member]!.reason}`}
              </span>
              <Button
                size="compact-xs"
                variant="default"
                aria-label={`Let ${nameOf(member)} come back`}
                onClick={() => void send({ type: 'letBack', member })}
              >
                Let back
              </Button>
            </div>
          ))}
        </>
      )}
    </>
  );
}

/** Somebody who was not invited is brought in. */
function Uninvited() {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      opened={open}
      onChange={setOpen}
      width={300}
      position="right-end"
      shadow="md"
      withArrow
      trapFocus
      returnFocus
    >
      <Popover.Target>
        <SmallButton wide onClick={() => setOpen(!open)}>
          Bring somebody in
        </SmallButton>
      </Popover.Target>
      <Popover.Dropdown aria-label="Bring somebody in">
        <Suspense>{open && <BringIn close={() => setOpen(false)} />}</Suspense>
      </Popover.Dropdown>
    </Popover>
  );
}

import { Popover } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { SmallButton } from '../../ui/SmallButton';
import { useRoom } from '../live/useRoom';
import classes from './desk.module.css';

// Seldom asked for.
const DeviceChoice = lazy(() => import('../door/DeviceChoice'));
const PresentChoice = lazy(() => import('./PresentChoice'));

/** Another microphone, camera or loudspeaker, and what one presents, in the middle of class. */
export function DevicesButton() {
  const { call } = useRoom();
  const [open, setOpen] = useState(false);
  return (
    <div className={classes.devices}>
      <Popover
        opened={open}
        onChange={setOpen}
        width={300}
        position="top-start"
        shadow="md"
        withArrow
        trapFocus
      >
        <Popover.Target>
          <SmallButton onClick={() => setOpen(!open)}>Devices</SmallButton>
        </Popover.Target>
        <Popover.Dropdown aria-label="Your devices">
          <Suspense>
            {open && (
              <>
                <DeviceChoice changed={(what) => void call.change(what).catch(() => {})} />
                <PresentChoice />
              </>
            )}
          </Suspense>
        </Popover.Dropdown>
      </Popover>
    </div>
  );
}

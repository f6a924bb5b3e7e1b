import { Popover } from '@mantine/core';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { SmallButton } from '../../ui/SmallButton';
import { useRoom, useTeaching } from '../live/useRoom';
import classes from './desk.module.css';

// Seldom asked for.
const DeviceChoice = lazy(() => import('../door/DeviceChoice'));
const PresentChoice = lazy(() => import('./PresentChoice'));
const OnlyListen = lazy(() => import('./OnlyListen').then((m) => ({ default: m.OnlyListen })));
const SeatOrder = lazy(() => import('../seats/SeatOrder'));
const SeatsAlone = lazy(() => import('../seats/SeatsAlone'));

/** A small button, and what it opens over itself. */
function Over({ words, about, children }: { words: string; about: string; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
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
        <SmallButton onClick={() => setOpen(!open)}>{words}</SmallButton>
      </Popover.Target>
      <Popover.Dropdown aria-label={about}>
        <Suspense>{open && children}</Suspense>
      </Popover.Dropdown>
    </Popover>
  );
}

/** Another microphone, camera or loudspeaker, and what one presents, in the middle of class; and how the seats stand. */
export function DevicesButton() {
  const { call } = useRoom();
  const teaching = useTeaching();
  return (
    <div className={classes.devices}>
      <Over words="Devices" about="Your devices">
        <DeviceChoice changed={(what) => void call.change(what).catch(() => {})} />
        <PresentChoice />
        {!teaching && <OnlyListen />}
      </Over>{' '}
      <Over words="Seats" about="How the seats stand">
        {teaching ? <SeatOrder /> : <SeatsAlone />}
      </Over>
    </div>
  );
}

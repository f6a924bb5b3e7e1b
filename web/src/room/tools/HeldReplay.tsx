import { Paper } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { questionOn } from '@nimble-bell/core/room';
import type { ReplayProps } from './replay';

const HeldThen = lazy(() => import('./HeldThen'));

/** What was held up before everybody at that moment: nothing, most of the time. */
export function HeldReplay(props: ReplayProps) {
  const { timer, pick, signs, floor } = props.room;
  const given = Object.keys(signs).length > 0 || floor.hands.length > 0;
  if (!timer.on && !pick.now && !given && !questionOn(props.room)) return null;
  return (
    <Paper withBorder mt="sm" component="section" aria-label="Held up in class" data-testid="held-then">
      <Suspense>
        <HeldThen {...props} />
      </Suspense>
    </Paper>
  );
}

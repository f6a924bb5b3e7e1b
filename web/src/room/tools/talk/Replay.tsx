import { lazy, Suspense } from 'react';
import { Paper, Text, Title } from '@mantine/core';
import type { ReplayProps } from '../replay';
import { Messages } from './Messages';
import classes from './talk.module.css';

const Attached = lazy(() => import('./Attached'));

/** What had been written by then. */
export function TalkReplay({ room, zone, nameOf, session }: ReplayProps) {
  return (
    <Paper withBorder p="md" component="section" aria-label="Talk">
      <Title order={2} size="h5">
        Talk
      </Title>
      <div className={classes.replayed} tabIndex={0} role="group" aria-label="What was written so far">
        <div data-testid="replayed-talk">
          {room.talk.messages.length === 0 && (
            <Text c="dimmed">What was written appears as the recording comes to it.</Text>
          )}
          <Messages
            messages={room.talk.messages}
            me={null}
            {...{ zone, nameOf }}
            files={(id) => (
              <Suspense>
                <Attached session={session} id={id} />
              </Suspense>
            )}
          />
        </div>
      </div>
    </Paper>
  );
}

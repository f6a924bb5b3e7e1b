import { Button } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { theLine, useLine } from './line';
import classes from './notices.module.css';
import { deviceZone } from './reader';

/** What stands until it is over: the server does not answer, changes that wait for it, what is shown is an older state. */
export function LineBar() {
  const { away, keptAt, unsent } = useLine();
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const tryAgain = async () => {
    setBusy(true);
    for (const { again } of theLine().unsent) await again().catch(() => {});
    await client.refetchQueries({ type: 'active' }).catch(() => {});
    setBusy(false);
  };
  const words = [
    away && 'The server does not answer. What you typed is still here.',
    unsent.length > 0 && `${countWords(unsent.length, 'change')} not saved yet.`,
    keptAt !== null && `What you see was kept on this device ${instantWords(keptAt, deviceZone())}.`,
  ].filter(Boolean);
  return (
    <div className={classes.line} aria-live="assertive" data-shown={words.length > 0}>
      {words.length > 0 && (
        <>
          <span>{words.join(' ')}</span>
          <Button size="compact-sm" variant="default" loading={busy} onClick={() => void tryAgain()}>
            Try again
          </Button>
        </>
      )}
    </div>
  );
}

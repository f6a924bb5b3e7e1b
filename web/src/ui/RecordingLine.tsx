import { Button, Group, Text } from '@mantine/core';
import { Link } from 'react-router';
import type { RecordingInfo } from '@nimble-bell/core/api';
import { dayWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import classes from './parts.module.css';
import { lengthWords, preparingWords } from '../watch/words';

/** A recording in a list: what it is, how far its preparing is, and the way to it. */
export function RecordingLine({ recording, to }: { recording: RecordingInfo; to: string }) {
  const { state, progress, title, lengthMs, keepUntil, goneAt = null, still } = recording;
  return (
    <Group justify="space-between" wrap="nowrap" gap="sm" data-testid="recording" data-state={state}>
      {still && <img src={still} alt="" loading="lazy" className={classes.still} />}
      <div className={classes.grow}>
        <Text fw={550}>{title}</Text>
        <Text size="sm" c="dimmed" className="figures">
          {goneAt !== null
            ? `Deleted. Gone for good on ${dayWords(new Date(goneAt).toISOString().slice(0, 10))}`
            : state === 'ready'
              ? `${lengthWords(lengthMs)}${keepUntil ? `, kept until ${dayWords(keepUntil)}` : ''}`
              : preparingWords(recording)}
        </Text>
        {state === 'preparing' && (
          <progress className={classes.progress} value={progress} aria-label="Being prepared" />
        )}
      </div>
      {goneAt !== null ? (
        <TakenAway id={recording.id} />
      ) : (
        state === 'ready' && (
          <Button component={Link} to={to} variant="default">
            Watch
          </Button>
        )
      )}
    </Group>
  );
}

/** It can be taken back for some weeks. */
function TakenAway({ id }: { id: string }) {
  const ask = useAsk();
  const back = useChange(
    () => ask(`/recordings/${id}/back`, 'POST', {}),
    () => 'The recording is back.',
  );
  return (
    <Button variant="default" loading={back.isPending} onClick={() => back.mutate()}>
      Take it back
    </Button>
  );
}

import { Button, Group } from '@mantine/core';
import { teaches } from '@nimble-bell/core/roster';
import { useInside, useRoom, type Inside } from '../live/useRoom';
import classes from './frame.module.css';

/** Somebody of a class that is recorded, or will be, who has not said whether they are to be in it. */
const select = ({ room: { recording }, info: { me } }: Inside) =>
  !teaches(me.role) &&
  me.role !== 'observer' &&
  (recording.automatic || recording.state !== 'off') &&
  !recording.answers[me.member];

/** Told before one says a word, and asked; it covers nothing, and takes no focus. */
export function Consent() {
  const asks = useInside(select);
  const { send } = useRoom();
  if (!asks) return null;
  const answer = (agrees: boolean) => void send({ type: 'answerRecording', agrees });
  return (
    <div className={classes.away} role="region" aria-label="This class is recorded">
      <Group justify="space-between" gap="xs">
        <span>
          This class is recorded: your voice, your name and what you write to the class are kept in it.
        </span>
        <Group gap="xs">
          <Button size="compact-sm" onClick={() => answer(true)}>
            All right
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => answer(false)}>
            Not me
          </Button>
        </Group>
      </Group>
    </div>
  );
}

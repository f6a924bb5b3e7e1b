import { Button, Group } from '@mantine/core';
import { useInside, useRoom } from '../live/useRoom';
import classes from './frame.module.css';

/** Told before one says a word, and asked; it covers nothing, and takes no focus. */
export default function ConsentAsked() {
  const { send } = useRoom();
  const { cameras, tables } = useInside(({ room }) => room.recording);
  const answer = (agrees: boolean) => void send({ type: 'answerRecording', agrees });
  return (
    <div className={classes.away} role="region" aria-label="This class is recorded">
      <Group justify="space-between" gap="xs">
        <span>
          This class is recorded: your voice, your name and what you write to the class are kept in it
          {cameras && ', and your camera while you have the floor'}.
          {tables && ' At tables your voice is kept for who sits there, and for those who teach.'}
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

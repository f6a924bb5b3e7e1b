import { Text } from '@mantine/core';
import type { PorchInfo } from '@nimble-bell/core/api';
import { durationWords, instantWords } from '@nimble-bell/core/calendar';
import { useNow } from '../../app/clock';
import { useAbout } from '../../app/title';
import { Doorway, WayBack } from '../frame/Doorway';
import { TryDevices } from './TryDevices';
import classes from './door.module.css';

/** Where one waits who has knocked: what is behind the door, that one is seen, and what a teacher says. */
export function Porch({ porch }: { porch: PorchInfo }) {
  const { course, session, zone, since, word } = porch;
  const now = useNow(10_000);
  useAbout(`${course.code} ${session.seriesTitle} ${session.number}`);
  const waited = Math.floor((now - since) / 60_000);
  return (
    <Doorway title="You have knocked">
      <Text ta="center" fw={550}>
        {course.code} {course.title}, {session.seriesTitle} {session.number}
        <br />
        {instantWords(session.startsAt, zone)}
      </Text>
      <Text ta="center" maw={420}>
        Your teachers see that you wait. The door opens here by itself when one lets you in; you need not
        press anything.
      </Text>
      <div role="status" className={classes.word}>
        {word && (
          <>
            <Text size="sm" c="dimmed">
              A word from your teacher
            </Text>
            <Text>{word}</Text>
          </>
        )}
      </div>
      <Text size="sm" c="dimmed">
        {waited < 1 ? 'You came just now.' : `You have waited for ${durationWords(waited)}.`}
      </Text>
      <TryDevices />
      <WayBack info={null} />
    </Doorway>
  );
}

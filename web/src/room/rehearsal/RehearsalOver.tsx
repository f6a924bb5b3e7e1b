import { Button, Text } from '@mantine/core';
import { Link } from 'react-router';
import { Doorway } from '../frame/Doorway';
import { TriedList } from './TriedList';
import { useRehearsal, useThrowAway } from './useRehearsal';

/** After the class of a rehearsal was dismissed: what was tried, and back to the session. */
export default function RehearsalOver({ session }: { session: string }) {
  const { data, error } = useRehearsal(session);
  const throwAway = useThrowAway(session, data);
  return (
    <Doorway title="The rehearsal is over">
      <Text ta="center" maw={420}>
        The made-up class is out. Nothing of it is kept.
      </Text>
      {data && <TriedList tried={data.tried} />}
      {error && !data ? (
        <Button autoFocus component={Link} to="/courses">
          To your courses
        </Button>
      ) : (
        <Button autoFocus loading={throwAway.isPending} onClick={() => throwAway.mutate(undefined)}>
          To the session
        </Button>
      )}
    </Doorway>
  );
}

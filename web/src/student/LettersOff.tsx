import { Anchor, Container, Stack, Switch, Text, Title } from '@mantine/core';
import { Link, useParams } from 'react-router';
import type { MyCourse, Unwanted } from '@nimble-bell/core/api';
import { Bar } from '../app/Bar';
import { Shell } from '../app/Shell';
import { useAsk } from '../app/api';
import { useAsked, useChange, stopOf } from '../app/queries';
import { Fault } from '../ui/Fault';
import { Panel } from '../ui/Panel';

const KINDS: { topic: Unwanted; label: string; about: string }[] = [
  { topic: 'reminder', label: 'Reminders', about: 'A letter some time before a session.' },
  { topic: 'notice', label: 'Notices', about: 'What your teacher tells the class. It is on your page too.' },
  { topic: 'recording', label: 'Recordings', about: 'That a class you missed can be watched.' },
];

/** Which letters a student wants; the way in from the foot of each of them. */
export function LettersOff() {
  const { code } = useParams();
  const ask = useAsk();
  const mine = useAsked<MyCourse>('/my-course');
  const keep = useChange(
    (quiet: Unwanted[]) => ask('/my-course/letters', 'PUT', { quiet }),
    () => 'Kept.',
  );
  const stop = stopOf(mine);
  if (stop) return <Fault error={stop} />;
  if (!mine.data) return <Shell label="Loading your course" />;
  const { course, me } = mine.data;
  const toggle = (topic: Unwanted, on: boolean) =>
    keep.mutate(on ? me.quiet.filter((t) => t !== topic) : [...me.quiet, topic]);
  return (
    <>
      <Bar home={`/in/${code}`} />
      <Container size="sm" py="lg" component="main" id="content">
        <Title order={1} size="h2" mb="md">
          Letters from {course.code} {course.title}
        </Title>
        <Panel title="What you are written">
          <Stack gap="md">
            {KINDS.map(({ topic, label, about }) => (
              <Switch
                key={topic}
                label={label}
                description={about}
                checked={!me.quiet.includes(topic)}
                disabled={keep.isPending}
                onChange={(e) => toggle(topic, e.currentTarget.checked)}
              />
            ))}
          </Stack>
          <Text size="sm" mt="md">
            Invitations and changes of the plan always come: they keep your calendar right.
          </Text>
        </Panel>
        <Anchor component={Link} to={`/in/${code}`} mt="md" display="inline-block">
          To your class page
        </Anchor>
      </Container>
    </>
  );
}

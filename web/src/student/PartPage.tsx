import { Button, Container, Stack, Table, Text, Title } from '@mantine/core';
import { Link, useParams } from 'react-router';
import type { MyCourse, Participation } from '@nimble-bell/core/api';
import { NO_PART, partsTogether } from '@nimble-bell/core/after';
import { instantWords } from '@nimble-bell/core/calendar';
import { minutesWords, partWords } from '../after/words';
import Thought from '../after/Thought';
import { Bar } from '../app/Bar';
import { Shell } from '../app/Shell';
import { stopOf, useAsked } from '../app/queries';
import { Fault } from '../ui/Fault';
import { Heads } from '../ui/Heads';
import { Empty, Panel, Scrolls } from '../ui/Panel';

/** How a student took part, as far as it is counted; and what they thought of the latest class. */
export function PartPage() {
  const { code } = useParams();
  const mine = useAsked<MyCourse>('/my-course');
  const stop = stopOf(mine);
  if (stop) return <Fault error={stop} />;
  if (!mine.data) return <Shell label="Loading your course" />;
  const last = mine.data.sessions.filter((s) => s.state === 'held').at(-1);
  return (
    <>
      <Bar home={`/in/${code}`} />
      <Container size="sm" py="lg" component="main" id="content">
        <Title order={1} size="h2" mb="md">
          How you take part
        </Title>
        <Stack>
          {last && <Thought session={last.id} title={`${last.seriesTitle} ${last.number}`} />}
          <Counted mine={mine.data} />
          <Button component={Link} to={`/in/${code}`} variant="subtle">
            Back to the course page
          </Button>
        </Stack>
      </Container>
    </>
  );
}

function Counted({ mine: { course, me } }: { mine: MyCourse }) {
  const { data } = useAsked<Participation>(`/courses/${course.id}/participation`);
  if (!data) return null;
  if (!data.rules.participation)
    return (
      <Panel title="What is counted">
        <Empty>Nothing: your teacher has switched it off.</Empty>
      </Panel>
    );
  const cells = data.rows[0]?.cells ?? [];
  return (
    <Panel
      title="What is counted"
      about="How long you are heard, how often you write to the class or to those who teach, how often your hand is up, and how many questions you answer. Those who teach see it, and you."
    >
      <Text mb="sm">In all you {partWords(partsTogether(cells))}.</Text>
      <Scrolls label="How you took part, class by class, scrolls">
        <Table fz="sm">
          <Heads of={['Class', 'Spoke, minutes', 'Wrote', 'Hand', 'Answers']} />
          <Table.Tbody>
            {data.sessions
              .map((s, i) => ({ ...s, part: cells[i] ?? NO_PART }))
              .reverse()
              .map(({ id, title, number, startsAt, part }) => (
                <Table.Tr key={id}>
                  <Table.Td>
                    {title} {number}
                    <Text span size="xs" c="dimmed">
                      , {instantWords(startsAt, me.zone)}
                    </Text>
                  </Table.Td>
                  <Table.Td className="figures">{minutesWords(part.spokenMs)}</Table.Td>
                  <Table.Td className="figures">{part.written}</Table.Td>
                  <Table.Td className="figures">{part.hands}</Table.Td>
                  <Table.Td className="figures">{part.answers}</Table.Td>
                </Table.Tr>
              ))}
          </Table.Tbody>
        </Table>
      </Scrolls>
    </Panel>
  );
}

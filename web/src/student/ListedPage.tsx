import { Anchor, Container, Table, Text, Title } from '@mantine/core';
import type { ListedSession } from '@nimble-bell/core/api';
import { clockWords, instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { Bar } from '../app/Bar';
import { useAsked } from '../app/queries';
import { Heads } from '../ui/Heads';
import { Empty } from '../ui/Panel';
import { deviceZone } from '../app/reader';

/** The college's public page: the sessions that are listed, in the reader's own time. */
export function ListedPage() {
  const listed = useAsked<ListedSession[]>('/listed');
  const zone = deviceZone();
  return (
    <>
      <Bar />
      <Container size="md" py="lg" component="main" id="content">
        <Title order={1} size="h2">
          Listed sessions
        </Title>
        <Text c="dimmed" mb="md">
          Times are {zoneWords(zone)} time, that of this device.{' '}
          <Anchor underline="always" href="/api/listed.ics">
            Subscribe to them as a calendar
          </Anchor>
        </Text>
        {listed.data?.length === 0 && <Empty>No session is listed at present.</Empty>}
        {listed.data && listed.data.length > 0 && (
          <Table>
            <Heads of={['When', 'Course', 'Taught by']} />
            <Table.Tbody>
              {listed.data.map((s) => (
                <Table.Tr key={`${s.course}${s.series}${s.startsAt}`}>
                  <Table.Td className="figures">
                    {instantWords(s.startsAt, zone)}–{clockWords(s.endsAt, zone)}
                  </Table.Td>
                  <Table.Td>
                    <Text fw={550}>{s.course}</Text>
                    <Text size="sm">
                      {s.series}
                      {s.title && `: ${s.title}`}
                    </Text>
                  </Table.Td>
                  <Table.Td>{s.teachers.join(', ')}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        )}
      </Container>
    </>
  );
}

import { Anchor, Stack, Table, Text, Title } from '@mantine/core';
import { Link } from 'react-router';
import { countWords, durationWords, instantWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { Heads } from '../ui/Heads';
import { Empty, Panel } from '../ui/Panel';
import { SessionMark } from '../ui/SessionMark';
import CourseSearch from '../watch/CourseSearch';
import { RunSheetsHeld } from './RunSheetsHeld';

/** What is behind: each session held, with its roll and its recording a press away. */
export function ReviewPage() {
  const course = useThisCourse();
  const past = course.sessions.filter((s) => s.state === 'held' || s.state === 'cancelled').reverse();
  return (
    <Stack>
      <Title order={1} size="h2">
        Review
      </Title>
      <Panel
        title="Sessions so far"
        about={`${past.filter((s) => s.state === 'held').length} held, ${countWords(course.counts.recordings, 'recording')}`}
      >
        {past.length === 0 && <Empty>No session has been held yet.</Empty>}
        <Table fz="sm">
          <Heads quiet of={['Mark', 'When', 'Session', 'Length', 'State']} />
          <Table.Tbody>
            {past.map((s) => (
              <Table.Tr key={s.id}>
                <Table.Td w={30}>
                  <SessionMark state={s.state} />
                </Table.Td>
                <Table.Td className="figures">{instantWords(s.startsAt, course.term.zone)}</Table.Td>
                <Table.Td>
                  <Anchor component={Link} to={`/course/${course.id}/session/${s.id}`} fw={550}>
                    {s.seriesTitle} {s.number}
                  </Anchor>
                </Table.Td>
                <Table.Td>{durationWords(s.minutes)}</Table.Td>
                <Table.Td>
                  <Text size="sm" c={s.state === 'cancelled' ? 'var(--clay)' : 'dimmed'}>
                    {s.state}
                  </Text>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Panel>
      <Panel
        title="In the recordings"
        about="What was said by captions, written to the class, or put on the board."
      >
        <CourseSearch course={course.id} to={(id) => `/course/${course.id}/watch/${id}`} />
      </Panel>
      <RunSheetsHeld />
    </Stack>
  );
}

import { Table, Text } from '@mantine/core';
import type { Attended, MyCourse } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { useAsked } from '../app/queries';
import { Panel } from '../ui/Panel';

/** One's own line of every roll. */
export function Attendance({ mine }: { mine: MyCourse }) {
  const attended = useAsked<Attended[]>('/my-course/attendance');
  const lines = attended.data ?? [];
  if (!lines.length) return null;
  const there = lines.filter((l) => l.line.state === 'present').length;
  return (
    <Panel
      title="Your attendance"
      about={`There in ${there} of ${countWords(lines.length, 'session')} that were held.`}
    >
      <details>
        <summary>Session by session</summary>
        <Table fz="sm">
          <Table.Tbody>
            {[...lines].reverse().map(({ sessionId, line }) => {
              const s = mine.sessions.find((x) => x.id === sessionId);
              return (
                <Table.Tr key={sessionId}>
                  <Table.Td>
                    {s?.seriesTitle} {s?.number}
                    <Text size="xs" c="dimmed">
                      {s && instantWords(s.startsAt, mine.me.zone)}
                    </Text>
                  </Table.Td>
                  <Table.Td className="figures">
                    {line.state === 'absent' ? 'not there' : countWords(line.minutes, 'minute')}
                    {line.late && ', late'}
                    {line.leftEarly && ', left early'}
                  </Table.Td>
                </Table.Tr>
              );
            })}
          </Table.Tbody>
        </Table>
      </details>
    </Panel>
  );
}

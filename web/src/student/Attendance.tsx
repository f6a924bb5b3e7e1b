import { Group, Text } from '@mantine/core';
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
        <ul style={{ listStyle: 'none', margin: 0, padding: 0 }}>
          {[...lines].reverse().map(({ sessionId, line }) => {
            const s = mine.sessions.find((x) => x.id === sessionId);
            return (
              <Group key={sessionId} component="li" justify="space-between" gap="xs" py={3}>
                <Text size="sm">
                  {s?.seriesTitle} {s?.number}
                  <Text span size="xs" c="dimmed">
                    {s && `, ${instantWords(s.startsAt, mine.me.zone)}`}
                  </Text>
                </Text>
                <Text size="sm" className="figures">
                  {line.state === 'absent' ? 'not there' : countWords(line.minutes, 'minute')}
                  {line.late && ', late'}
                  {line.leftEarly && ', left early'}
                </Text>
              </Group>
            );
          })}
        </ul>
      </details>
    </Panel>
  );
}

import { Group, Progress, Table, Text } from '@mantine/core';
import { area, curveMonotoneX, scaleLinear } from 'd3';
import type { RecordingDetail, Watchers } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { STRETCH_MS } from '@nimble-bell/core/watching';
import { useParams } from 'react-router';
import { useAsked } from '../app/queries';
import { WriteButton } from '../review/WriteButton';
import { Heads } from '../ui/Heads';
import { Empty, Panel } from '../ui/Panel';
import { lengthWords } from './words';
import classes from './watch.module.css';

const [WIDTH, HEIGHT] = [1000, 90];

/** Who watched, how far; and over the time line how often each stretch was. Only those who teach see it. */
export default function WatchersPanel({ recording }: { recording: RecordingDetail }) {
  const { data } = useAsked<Watchers>(`/recordings/${recording.id}/watchers`, { every: () => 30_000 });
  if (!data) return null;
  return (
    <Panel
      title="Who watched"
      about="Those who teach see this; everybody else sees where they were themselves."
    >
      {data.missed.length > 0 && <Missed of={data.missed} recording={recording} />}
      {data.people.length === 0 ? (
        <Empty>{data.counted ? 'Nobody has watched it yet.' : 'It is not counted in this course.'}</Empty>
      ) : (
        <>
          <Curve of={data.curve} />
          <Text size="sm" c="dimmed" mb="sm">
            {countWords(data.people.length, 'person', 'people')}; above, how often each part was watched.
          </Text>
          <Table fz="sm">
            <Heads of={['Name', 'Watched', 'Last']} />
            <Table.Tbody>
              {data.people.map((p) => (
                <Table.Tr key={p.member}>
                  <Table.Td fw={550}>{p.name}</Table.Td>
                  <Table.Td>
                    <Group gap="xs" wrap="nowrap">
                      <Progress value={p.share * 100} w={160} aria-label={`Watched by ${p.name}`} />
                      <span className="figures">{Math.round(p.share * 100)} %</span>
                    </Group>
                  </Table.Td>
                  <Table.Td>{instantWords(p.at, recording.zone)}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </>
      )}
    </Panel>
  );
}

/** Who missed the class, and what was recorded of it. */
function Missed({ of, recording }: { of: Watchers['missed']; recording: RecordingDetail }) {
  const { course } = useParams();
  return (
    <Group mb="sm" gap="xs">
      <Text size="sm">
        {countWords(of.length, 'student')} {of.length === 1 ? 'was' : 'were'} not there, and{' '}
        {of.length === 1 ? 'has' : 'have'} not watched.
      </Text>
      <WriteButton
        label="Write to them …"
        course={course!}
        to={of}
        recording={recording.id}
        begin={`You missed ${recording.title}. Its recording is yours to watch: the link leads there.`}
      />
    </Group>
  );
}

function Curve({ of }: { of: readonly number[] }) {
  const most = Math.max(1, ...of);
  const x = scaleLinear([0, Math.max(1, of.length - 1)], [0, WIDTH]);
  const y = scaleLinear([0, most], [HEIGHT - 4, 6]);
  const path = area<number>()
    .x((_, i) => x(i))
    .y0(HEIGHT - 4)
    .y1((n) => y(n))
    .curve(curveMonotoneX)([...of]);
  const busiest = of.indexOf(most);
  return (
    <svg
      className={classes.curve}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`How often each part was watched; most at ${lengthWords(busiest * STRETCH_MS)}, ${most} times`}
    >
      <path d={path ?? ''} fill="var(--pine-wash)" stroke="var(--pine)" />
    </svg>
  );
}

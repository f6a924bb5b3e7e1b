import { Table, Text } from '@mantine/core';
import type { HeldSegmentInfo } from '@nimble-bell/core/api';
import { durationWords } from '@nimble-bell/core/calendar';
import { takenBySegment, type Taken } from '@nimble-bell/core/room';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Heads } from '../ui/Heads';
import { Empty, Panel, Scrolls } from '../ui/Panel';
import classes from './held.module.css';

const minutes = (n: number) => durationWords(Math.max(1, Math.round(n)));

/** How the segments of the run sheets went over the term, beside what was planned. */
export function RunSheetsHeld() {
  const course = useThisCourse();
  const held = useAsked<HeldSegmentInfo[]>(`/courses/${course.id}/held-segments`);
  if (!held.data) return null;
  const taken = takenBySegment(held.data);
  const most = Math.max(1, ...taken.map((t) => Math.max(t.planned, t.took)));
  return (
    <Panel
      title="Run sheets, planned and as they went"
      about="In the mean of all sessions in which a segment was begun."
    >
      {taken.length === 0 ? (
        <Empty>No class has gone by a run sheet yet. What its segments take stands here then.</Empty>
      ) : (
        <Scrolls label="Segments as they were held, scrolls">
          <Table fz="sm" miw={620}>
            <Heads of={['Segment', 'Times', 'Planned above, held below', 'Planned', 'Took', 'Longest']} />
            <Table.Tbody>
              {taken.map((t) => (
                <Table.Tr key={t.title}>
                  <Table.Th scope="row">{t.title}</Table.Th>
                  <Table.Td className="figures">{t.times}</Table.Td>
                  <Table.Td>
                    <Bars taken={t} most={most} />
                  </Table.Td>
                  <Table.Td>{minutes(t.planned)}</Table.Td>
                  <Table.Td>
                    {minutes(t.took)}
                    {Math.round(t.took) > Math.round(t.planned) && (
                      <Text span size="sm" c="var(--brass-text)">
                        {' '}
                        longer
                      </Text>
                    )}
                  </Table.Td>
                  <Table.Td>{minutes(t.longest)}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </Scrolls>
      )}
    </Panel>
  );
}

function Bars({ taken: { planned, took }, most }: { taken: Taken; most: number }) {
  const width = (n: number) => ({ width: `${(n / most) * 100}%` });
  return (
    <div className={classes.bars} aria-hidden>
      <div className={classes.planned} style={width(planned)} />
      <div className={classes.took} style={width(took)} />
    </div>
  );
}

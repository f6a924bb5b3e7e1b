import { Anchor, Group, ScrollArea, Table, Text, VisuallyHidden } from '@mantine/core';
import { useState } from 'react';
import type { SessionInfo } from '@nimble-bell/core/api';
import { clockWords, countWords } from '@nimble-bell/core/calendar';
import { computedMark, MARK_WORDS, markOf, wasThere, type RollLine } from '@nimble-bell/core/roll';
import { Heads } from '../ui/Heads';
import { Panel } from '../ui/Panel';
import { CorrectionDialog, type Corrected } from './CorrectionDialog';
import { RollMark } from './RollMark';

/** The roll of one session, as the rules make it and as it was corrected. */
export function Roll({ roll, zone, session }: { roll: RollLine[]; zone: string; session: SessionInfo }) {
  const [correcting, setCorrecting] = useState<Corrected | null>(null);
  const students = roll.filter((r) => r.role === 'student');
  const there = students.filter((r) => wasThere(markOf(r))).length;
  const late = students.filter((r) => markOf(r) === 'late').length;
  const held = session.state === 'held';
  return (
    <Panel title="Roll" about={`${there} of ${countWords(students.length, 'student')} present, ${late} late`}>
      <ScrollArea.Autosize mah={560} viewportProps={{ tabIndex: 0, 'aria-label': 'Roll, scrolls' }}>
        <Table fz="sm" stickyHeader data-testid="roll">
          <Heads
            of={[
              'Name',
              'Role',
              'Was there',
              'From',
              'Until',
              'Minutes',
              'Remarks',
              ...(held ? ['Correct'] : []),
            ]}
            figures="Minutes"
          />
          <Table.Tbody>
            {roll.map((r) => (
              <Line
                key={r.member}
                line={r}
                zone={zone}
                correct={held ? () => setCorrecting(of(r, session)) : null}
              />
            ))}
          </Table.Tbody>
        </Table>
      </ScrollArea.Autosize>
      {correcting && <CorrectionDialog of={correcting} close={() => setCorrecting(null)} />}
    </Panel>
  );
}

const of = (r: RollLine, { id, seriesTitle: title, number }: SessionInfo): Corrected => ({
  ...{ member: r.member, name: r.name, session: { id, title, number } },
  cell: {
    ...{ mark: markOf(r), minutes: r.minutes },
    ...(r.corrected ? { corrected: true as const } : {}),
    ...(r.telephone ? { telephone: true as const } : {}),
  },
});

function Line({ line: r, zone, correct }: { line: RollLine; zone: string; correct: (() => void) | null }) {
  const remarks = [
    r.late && 'late',
    r.leftEarly && 'left early',
    r.short && 'too short',
    r.telephone && 'by telephone',
  ].filter(Boolean);
  return (
    <Table.Tr c={r.state === 'absent' ? 'dimmed' : undefined}>
      <Table.Td fw={550}>{r.name}</Table.Td>
      <Table.Td>{r.role}</Table.Td>
      <Table.Td>
        <Group gap={6} wrap="nowrap">
          <RollMark mark={markOf(r)} />
          {MARK_WORDS[markOf(r)]}
        </Group>
        {r.corrected && (
          <Text size="xs" c="dimmed">
            by the rules {MARK_WORDS[computedMark(r)]}; {r.corrected.by}: {r.corrected.reason}
          </Text>
        )}
      </Table.Td>
      <Table.Td className="figures">{r.from && clockWords(r.from, zone)}</Table.Td>
      <Table.Td className="figures">
        {r.until ? clockWords(r.until, zone) : r.state === 'present' ? 'still there' : ''}
      </Table.Td>
      <Table.Td className="figures" ta="right">
        {r.state === 'present' ? r.minutes : ''}
      </Table.Td>
      <Table.Td>{remarks.join(', ')}</Table.Td>
      {correct && (
        <Table.Td>
          {r.role === 'student' && (
            <Anchor component="button" type="button" size="sm" onClick={correct}>
              Correct
              <VisuallyHidden> {r.name}</VisuallyHidden>
            </Anchor>
          )}
        </Table.Td>
      )}
    </Table.Tr>
  );
}

import { Button, Table, Text } from '@mantine/core';
import type { CutTable } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../../app/api';
import { useChange } from '../../app/queries';
import { Heads } from '../../ui/Heads';
import { Empty, Panel } from '../../ui/Panel';
import { lengthWords } from '../words';

/** How it was cut, and when: each can be in force again, and so can what was recorded. */
export function History({ table, drop }: { table: CutTable; drop: () => void }) {
  const { whole, history, inForce } = table;
  const ask = useAsk();
  const back = useChange(
    (number: number | null) =>
      ask(`/recordings/${whole.id}/cuts/in-force`, 'PUT', { number, after: inForce }).then(drop),
    (_, number) => (number === null ? 'All of it is told again.' : 'It is cut as it was then.'),
  );
  if (!history.length)
    return (
      <Panel title="How it was cut">
        <Empty>It is as it was recorded. Whatever is cut can be taken back here.</Empty>
      </Panel>
    );
  const rows = [
    ...history.map((c) => ({ ...c, what: `${lengthWords(c.lengthMs)} of ${lengthWords(whole.lengthMs)}` })),
    { number: null, by: '', at: whole.startsAt, what: 'As it was recorded' },
  ];
  return (
    <Panel title="How it was cut" about="What was recorded stays as it is. Each of these can be had again.">
      <Table>
        <Heads of={['When', 'By', 'Told', 'In force']} />
        <Table.Tbody>
          {rows.map((r) => (
            <Table.Tr key={r.number ?? 'whole'}>
              <Table.Td className="figures">{instantWords(r.at, whole.zone)}</Table.Td>
              <Table.Td>{r.by}</Table.Td>
              <Table.Td className="figures">{r.what}</Table.Td>
              <Table.Td>
                {r.number === inForce ? (
                  <Text size="sm">Now</Text>
                ) : (
                  <Button
                    size="compact-sm"
                    variant="default"
                    loading={back.isPending}
                    aria-label={`${r.number === null ? 'As it was recorded' : `As it was cut ${instantWords(r.at, whole.zone)}`}, again`}
                    onClick={() => back.mutate(r.number)}
                  >
                    Again
                  </Button>
                )}
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Panel>
  );
}

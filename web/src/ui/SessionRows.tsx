import { Table } from '@mantine/core';
import type { SessionInfo } from '@nimble-bell/core/api';
import { durationWords, instantWords } from '@nimble-bell/core/calendar';
import { SessionMark } from './SessionMark';

/** Sessions ahead, a line each, in the reader's zone; a state that is out of the ordinary is said. */
export function SessionRows({ sessions, zone }: { sessions: readonly SessionInfo[]; zone: string }) {
  return (
    <Table fz="sm">
      <Table.Tbody>
        {sessions.map((s) => (
          <Table.Tr key={s.id}>
            <Table.Td w={28}>
              <SessionMark state={s.state} />
            </Table.Td>
            <Table.Td className="figures" style={{ whiteSpace: 'nowrap' }}>
              {instantWords(s.startsAt, zone)}
            </Table.Td>
            <Table.Td>
              {s.seriesTitle}
              {s.title && `: ${s.title}`}
            </Table.Td>
            <Table.Td visibleFrom="xs">{durationWords(s.minutes)}</Table.Td>
            <Table.Td>
              {s.state === 'planned' ? '' : s.state}
              {s.reason && `: ${s.reason}`}
            </Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

import { Button, Group, Stack, Table, Text } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useState } from 'react';
import type { RecordingDetail, ShareInfo } from '@nimble-bell/core/api';
import { dateIn, instantWords, toEpochDay, toInstant } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { serverNow } from '../app/clock';
import { useAsked, useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';

const DAY_MS = 86_400_000;
const USUAL_DAYS = 14;

/** Links by which anybody may watch: made until a day, and taken back in the same moment. */
export default function SharePanel({ recording: { id, zone } }: { recording: RecordingDetail }) {
  const ask = useAsk();
  const { data = [] } = useAsked<ShareInfo[]>(`/recordings/${id}/shares`);
  const [last, setLast] = useState(() => dateIn(zone, serverNow() + USUAL_DAYS * DAY_MS));
  const make = useChange(
    () => ask(`/recordings/${id}/shares`, 'POST', { until: toInstant(zone, toEpochDay(last), 24 * 60 - 1) }),
    () => 'The link is made.',
  );
  const end = useChange(
    (share: string) => ask(`/recordings/${id}/shares/${share}`, 'DELETE'),
    () => 'The link is taken back: it opens nothing any more.',
  );
  return (
    <Panel
      title="A link for anybody"
      about="Whoever has it watches sound, pictures and board. No student’s name is in it, and nothing that was written."
    >
      <Stack gap="sm">
        <Group align="flex-end">
          <DateInput
            label="Good until the end of"
            w={200}
            value={last}
            onChange={(day) => setLast(day ?? '')}
          />
          <Button
            variant="default"
            disabled={!last}
            loading={make.isPending}
            onClick={() => make.mutate(undefined)}
          >
            Make a link
          </Button>
        </Group>
        {data.length === 0 ? (
          <Empty>Nobody but the class can watch it.</Empty>
        ) : (
          <Links {...{ links: data, zone }} end={(share) => end.mutate(share)} />
        )}
      </Stack>
    </Panel>
  );
}

interface LinksProps {
  links: ShareInfo[];
  zone: string;
  end: (share: string) => void;
}

const Links = ({ links, zone, end }: LinksProps) => (
  <Table>
    <Table.Thead>
      <Table.Tr>
        <Table.Th scope="col">Link</Table.Th>
        <Table.Th scope="col">Until</Table.Th>
        <Table.Th scope="col">Opened</Table.Th>
        <Table.Th scope="col">Take back</Table.Th>
      </Table.Tr>
    </Table.Thead>
    <Table.Tbody>
      {links.map((s) => (
        <Table.Tr key={s.id}>
          <Table.Td style={{ overflowWrap: 'anywhere' }}>{window.location.origin + s.path}</Table.Td>
          <Table.Td>
            {instantWords(s.until, zone)}
            {s.ended && <Text size="sm">over</Text>}
          </Table.Td>
          <Table.Td className="figures">{s.opened}</Table.Td>
          <Table.Td>
            <Button
              size="compact-sm"
              variant="default"
              aria-label={`Take back the link until ${instantWords(s.until, zone)}`}
              onClick={() => end(s.id)}
            >
              Take back
            </Button>
          </Table.Td>
        </Table.Tr>
      ))}
    </Table.Tbody>
  </Table>
);

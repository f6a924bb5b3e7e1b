import { Button, Group, ScrollArea, Stack, Table, Text, TextInput, Title } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useMemo, useState } from 'react';
import type { MemberInfo } from '@nimble-bell/core/api';
import { clockWords, countWords, zoneWords } from '@nimble-bell/core/calendar';
import { useNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { ImportPanel } from './ImportPanel';

/** The class list, and how people come onto it. */
export function ClassPage() {
  const course = useThisCourse();
  const members = useAsked<MemberInfo[]>(`/courses/${course.id}/members`);
  const [importing, { open, close }] = useDisclosure(false);
  const [search, setSearch] = useState('');
  const found = useMemo(() => {
    const text = search.trim().toLowerCase();
    return members.data?.filter((m) =>
      `${m.name} ${m.email} ${m.zone} ${m.group ?? ''}`.toLowerCase().includes(text),
    );
  }, [members.data, search]);
  const mayPlan = course.role === 'teacher';
  const empty = course.counts.students === 0;
  return (
    <Stack>
      <Group justify="space-between">
        <Title order={1} size="h2">
          The class
        </Title>
        {mayPlan && !importing && !empty && <Button onClick={open}>Import a class list</Button>}
      </Group>
      {mayPlan && (importing || empty) && <ImportPanel course={course} done={close} />}
      <Panel
        title="Class list"
        about={countWords(course.counts.students, 'student')}
        action={
          <TextInput
            aria-label="Search the class list"
            placeholder="Name, address, group"
            value={search}
            onChange={(e) => setSearch(e.currentTarget.value)}
          />
        }
      >
        {found && <MemberTable members={found} />}
        {empty && <Empty>No student is on the list yet. Paste or choose a CSV file above.</Empty>}
        {!empty && found?.length === 0 && <Empty>Nobody matches “{search}”.</Empty>}
      </Panel>
    </Stack>
  );
}

const INVITATION_WORDS: Record<MemberInfo['invitation'], string> = {
  none: 'not yet',
  queued: 'on its way',
  sent: 'sent',
  failed: 'not delivered',
};

function MemberTable({ members }: { members: MemberInfo[] }) {
  const now = useNow(30_000);
  const grouped = members.some((m) => m.group);
  return (
    <ScrollArea.Autosize
      mah={560}
      type="auto"
      viewportProps={{ tabIndex: 0, 'aria-label': 'Class list, scrolls' }}
    >
      <Table fz="sm" stickyHeader highlightOnHover>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Name</Table.Th>
            <Table.Th>E-mail</Table.Th>
            <Table.Th>Role</Table.Th>
            {grouped && <Table.Th>Group</Table.Th>}
            <Table.Th>Time zone</Table.Th>
            <Table.Th>There it is</Table.Th>
            <Table.Th>Invitation</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {members.map((m) => (
            <Table.Tr key={m.id}>
              <Table.Td fw={550}>{m.name}</Table.Td>
              <Table.Td>{m.email}</Table.Td>
              <Table.Td>{m.role}</Table.Td>
              {grouped && <Table.Td>{m.group}</Table.Td>}
              <Table.Td>{zoneWords(m.zone)}</Table.Td>
              <Table.Td className="figures">{clockWords(now, m.zone)}</Table.Td>
              <Table.Td>
                {m.role === 'student' ? (
                  <Text
                    size="sm"
                    c={
                      m.invitation === 'failed'
                        ? 'var(--clay)'
                        : m.invitation === 'sent'
                          ? undefined
                          : 'dimmed'
                    }
                  >
                    {INVITATION_WORDS[m.invitation]}
                  </Text>
                ) : null}
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </ScrollArea.Autosize>
  );
}

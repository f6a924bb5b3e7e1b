import { Button, Checkbox, Group, ScrollArea, Table, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { BadRow, ChangedMember, ListRow, ListSummary, Some } from '@nimble-bell/core/roster';
import { zoneWords } from '@nimble-bell/core/calendar';
import { Empty } from '../ui/Panel';

const moreOf = (some: Some<unknown>) => some.count - some.first.length;

function Rows({ label, more, children }: { label: string; more: number; children: React.ReactNode }) {
  return (
    <ScrollArea.Autosize mah={250} viewportProps={{ tabIndex: 0, 'aria-label': label }}>
      <Table fz="sm">
        <Table.Tbody>{children}</Table.Tbody>
      </Table>
      {more > 0 && (
        <Text size="sm" c="dimmed" p={6}>
          and {more} more
        </Text>
      )}
    </ScrollArea.Autosize>
  );
}

export function FreshRows({ fresh }: { fresh: Some<ListRow> }) {
  if (!fresh.count) return <Empty>Nobody in it is new.</Empty>;
  return (
    <Rows label="New people" more={moreOf(fresh)}>
      {fresh.first.map((r) => (
        <Table.Tr key={r.email}>
          <Table.Td fw={550}>{r.name}</Table.Td>
          <Table.Td>{r.email}</Table.Td>
          <Table.Td>{r.zone && zoneWords(r.zone)}</Table.Td>
          <Table.Td>{r.group}</Table.Td>
          <Table.Td>{Object.values(r.extra).join(', ')}</Table.Td>
        </Table.Tr>
      ))}
    </Rows>
  );
}

export function ChangedRows({ changed }: { changed: Some<ChangedMember> }) {
  if (!changed.count) return <Empty>Nobody on the list changes.</Empty>;
  return (
    <Rows label="Changed people" more={moreOf(changed)}>
      {changed.first.map(({ member, fields }) => (
        <Table.Tr key={member.id}>
          <Table.Td fw={550}>{member.name}</Table.Td>
          <Table.Td>
            {fields.map((f) => (
              <div key={f.field}>
                {f.field}: <s>{f.was || 'nothing'}</s> {f.becomes || 'nothing'}
              </div>
            ))}
          </Table.Td>
        </Table.Tr>
      ))}
    </Rows>
  );
}

export function GoneRows(props: {
  gone: ListSummary['gone'];
  leaving: string[];
  setLeaving: (ids: string[]) => void;
}) {
  const { gone, leaving, setLeaving } = props;
  if (!gone.count) return <Empty>Everybody on the list is in it.</Empty>;
  const all = leaving.length === gone.count;
  return (
    <>
      <Group justify="space-between" mb={4}>
        <Text size="sm">They stay on the class list unless you choose them here.</Text>
        <Button size="compact-sm" variant="default" onClick={() => setLeaving(all ? [] : gone.ids)}>
          {all ? 'Keep them all' : 'Take them all off'}
        </Button>
      </Group>
      <Rows label="People not in the list" more={moreOf(gone)}>
        {gone.first.map((m) => (
          <Table.Tr key={m.id}>
            <Table.Td>
              <Checkbox
                label={m.name}
                checked={leaving.includes(m.id)}
                onChange={(e) =>
                  setLeaving(
                    e.currentTarget.checked ? [...leaving, m.id] : leaving.filter((id) => id !== m.id),
                  )
                }
              />
            </Table.Td>
            <Table.Td>{m.email}</Table.Td>
          </Table.Tr>
        ))}
      </Rows>
    </>
  );
}

/** Bad rows, each mended where it stands. */
export function BadRows(props: {
  bad: Some<BadRow>;
  headings: string[];
  mend: (line: number, cells: string[]) => void;
}) {
  const { bad, headings, mend } = props;
  return (
    <Rows label="Rows to mend" more={moreOf(bad)}>
      {bad.first.map((row) => (
        <BadLine key={`${row.line}/${row.cells.join()}`} row={row} headings={headings} mend={mend} />
      ))}
    </Rows>
  );
}

function BadLine(props: { row: BadRow; headings: string[]; mend: (line: number, cells: string[]) => void }) {
  const { row, headings, mend } = props;
  const [cells, setCells] = useState(row.cells);
  const changed = cells.some((c, i) => c !== row.cells[i]);
  return (
    <Table.Tr>
      <Table.Td>
        <Text size="sm" mb={4}>
          Line {row.line}: {row.reason}
        </Text>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            mend(row.line, cells);
          }}
        >
          <Group gap={6} wrap="nowrap">
            {headings.map((heading, i) => (
              <TextInput
                key={heading}
                size="xs"
                aria-label={`${heading} of line ${row.line}`}
                placeholder={heading}
                style={{ flex: 1, minWidth: 60 }}
                value={cells[i] ?? ''}
                onChange={(e) => setCells(cells.map((c, k) => (k === i ? e.currentTarget.value : c)))}
              />
            ))}
            <Button size="compact-sm" type="submit" variant="default" disabled={!changed}>
              Mend
            </Button>
          </Group>
        </form>
      </Table.Td>
    </Table.Tr>
  );
}

export function AlikeRows(props: {
  alike: ListSummary['alike'];
  settle: (line: number, as: 'same' | 'other') => void;
}) {
  return (
    <Rows label="Rows like somebody on the list" more={moreOf(props.alike)}>
      {props.alike.first.map(({ row, member }) => (
        <Table.Tr key={row.line}>
          <Table.Td>
            {row.name}, {row.email}
            <Text size="sm" c="dimmed">
              On the list: {member.name}, {member.email}
            </Text>
          </Table.Td>
          <Table.Td>
            <Group gap={6} justify="flex-end">
              <Button size="compact-sm" onClick={() => props.settle(row.line, 'same')}>
                The same, with a new address
              </Button>
              <Button size="compact-sm" variant="default" onClick={() => props.settle(row.line, 'other')}>
                Somebody else
              </Button>
            </Group>
          </Table.Td>
        </Table.Tr>
      ))}
    </Rows>
  );
}

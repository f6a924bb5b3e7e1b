import { Button, Checkbox, Group, ScrollArea, Table, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type {
  BadRow,
  ChangedMember,
  KnownMember,
  LeftOut,
  ListRow,
  ListSummary,
  RowKind,
  Settlement,
  Some,
} from '@nimble-bell/core/roster';
import { zoneWords } from '@nimble-bell/core/calendar';
import { Heads } from '../ui/Heads';
import { Empty } from '../ui/Panel';

/** How many rows come with one press. */
export const NEXT = 200;
/** The next rows of a kind, from a place on. */
export type More = <Row>(kind: RowKind, from: number) => Promise<Row[]>;

interface RowsProps<Row> {
  label: string;
  heads: readonly string[];
  kind: RowKind;
  some: Some<Row>;
  more: More;
  children: (row: Row) => React.ReactNode;
}

/** The first rows of a kind; the next ones come as they are asked for, until all are seen. */
function Rows<Row>({ label, heads, kind, some, more, children }: RowsProps<Row>) {
  const [further, setFurther] = useState<{ of: Some<Row>; rows: Row[] }>({ of: some, rows: [] });
  // Read anew, what came of the reading before is no more.
  const shown = [...some.first, ...(further.of === some ? further.rows : [])];
  const left = some.count - shown.length;
  const next = async () => {
    const rows = await more<Row>(kind, shown.length);
    setFurther({ of: some, rows: [...shown.slice(some.first.length), ...rows] });
  };
  return (
    <ScrollArea.Autosize mah={250} viewportProps={{ tabIndex: 0, 'aria-label': label }}>
      <Table fz="sm">
        <Heads quiet of={heads} />
        <Table.Tbody>{shown.map(children)}</Table.Tbody>
      </Table>
      {left > 0 && (
        <Button size="compact-sm" variant="default" m={6} onClick={() => void next()}>
          Show {left > NEXT ? `the next ${NEXT} of ${left}` : `the last ${left}`}
        </Button>
      )}
    </ScrollArea.Autosize>
  );
}

interface Props<Row> {
  some: Some<Row>;
  more: More;
}

export function FreshRows(props: Props<ListRow>) {
  if (!props.some.count) return <Empty>Nobody in it is new.</Empty>;
  return (
    <Rows label="New people" heads={['Name', 'E-mail', 'Time zone', 'Group', 'More']} kind="fresh" {...props}>
      {(r) => (
        <Table.Tr key={r.email}>
          <Table.Td fw={550}>{r.name}</Table.Td>
          <Table.Td>{r.email}</Table.Td>
          <Table.Td>{r.zone && zoneWords(r.zone)}</Table.Td>
          <Table.Td>{r.group}</Table.Td>
          <Table.Td>{Object.values(r.extra).join(', ')}</Table.Td>
        </Table.Tr>
      )}
    </Rows>
  );
}

export function ChangedRows(props: Props<ChangedMember>) {
  if (!props.some.count) return <Empty>Nobody on the list changes.</Empty>;
  return (
    <Rows label="Changed people" heads={['Name', 'What changes']} kind="changed" {...props}>
      {({ member, fields }) => (
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
      )}
    </Rows>
  );
}

export function GoneRows(props: {
  some: ListSummary['gone'];
  more: More;
  leaving: string[];
  setLeaving: (ids: string[]) => void;
}) {
  const { some: gone, more, leaving, setLeaving } = props;
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
      <Rows label="People not in the list" heads={['Name', 'E-mail']} kind="gone" some={gone} more={more}>
        {(m: KnownMember) => (
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
        )}
      </Rows>
    </>
  );
}

/** Bad rows, each mended where it stands. */
export function BadRows(
  props: Props<BadRow> & { headings: string[]; mend: (line: number, cells: string[]) => void },
) {
  const { some, more, headings, mend } = props;
  return (
    <Rows label="Rows to mend" heads={['Row']} kind="bad" some={some} more={more}>
      {(row) => <BadLine key={`${row.line}/${row.cells.join()}`} row={row} headings={headings} mend={mend} />}
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

interface SettleProps {
  more: More;
  settle: (line: number, as: Settlement) => void;
}

export function AlikeRows({ some, more, settle }: SettleProps & { some: ListSummary['alike'] }) {
  return (
    <Rows
      label="Rows like somebody on the list"
      heads={['Row', 'Who it is']}
      kind="alike"
      some={some}
      more={more}
    >
      {({ row, member }) => (
        <Table.Tr key={row.line}>
          <Table.Td>
            {row.name}, {row.email}
            <Text size="sm" c="dimmed">
              On the list: {member.name}, {member.email}
            </Text>
          </Table.Td>
          <Table.Td>
            <Group gap={6} justify="flex-end">
              <Button size="compact-sm" onClick={() => settle(row.line, 'same')}>
                The same, with a new address
              </Button>
              <Button size="compact-sm" variant="default" onClick={() => settle(row.line, 'other')}>
                Somebody else
              </Button>
            </Group>
          </Table.Td>
        </Table.Tr>
      )}
    </Rows>
  );
}

/** Two rows of one name: which stands for them, or that they are two. */
export function TwinRows({ some, more, settle }: SettleProps & { some: ListSummary['twins'] }) {
  return (
    <Rows
      label="Rows that may be one person"
      heads={['Rows', 'Who they are']}
      kind="twins"
      some={some}
      more={more}
    >
      {({ row, first }) => (
        <Table.Tr key={row.line}>
          <Table.Td>
            <Text size="sm" fw={550}>
              {row.name}
            </Text>
            {[first, row].map((r) => (
              <Text size="sm" key={r.line}>
                Line {r.line}: {[r.email, ...Object.values(r.extra)].join(', ')}
              </Text>
            ))}
          </Table.Td>
          <Table.Td>
            <Group gap={6} justify="flex-end">
              <Button size="compact-sm" variant="default" onClick={() => settle(row.line, 'twice')}>
                One person, as on line {first.line}
              </Button>
              <Button size="compact-sm" variant="default" onClick={() => settle(first.line, 'twice')}>
                One person, as on line {row.line}
              </Button>
              <Button size="compact-sm" variant="default" onClick={() => settle(row.line, 'other')}>
                Two people
              </Button>
            </Group>
          </Table.Td>
        </Table.Tr>
      )}
    </Rows>
  );
}

/** Whom a set names and who is not of the class now, with why. */
export function LeftOutRows(props: Props<LeftOut>) {
  return (
    <Rows label="People left out" heads={['Name', 'Why']} kind="leftOut" {...props}>
      {({ name, reason }) => (
        <Table.Tr key={`${name} ${reason}`}>
          <Table.Td>{name}</Table.Td>
          <Table.Td>{reason}</Table.Td>
        </Table.Tr>
      )}
    </Rows>
  );
}

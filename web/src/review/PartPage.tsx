import { Button, Group, Loader, NativeSelect, Stack, Table, Text, TextInput, Title } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Participation } from '@nimble-bell/core/api';
import { NO_PART, partsTogether, weighed, type TakenPart } from '@nimble-bell/core/after';
import { dateIn, dayWords } from '@nimble-bell/core/calendar';
import { writeCsv } from '@nimble-bell/core/roster';
import { minutesWords } from '../after/words';
import { useThisCourse } from '../app/course';
import { stopOf, useAsked } from '../app/queries';
import { downloadCsv } from '../ui/download';
import { Fault } from '../ui/Fault';
import { Heads } from '../ui/Heads';
import { Empty, Panel } from '../ui/Panel';
import { CountedPanel } from './CountedPanel';
import classes from './part.module.css';

/** How much each took part: who is heard, writes and raises a hand, in one class or over the term. */
export function PartPage() {
  const course = useThisCourse();
  const asked = useAsked<Participation>(`/courses/${course.id}/participation`);
  const stop = stopOf(asked);
  if (stop) return <Fault error={stop} />;
  return (
    <Stack>
      <Title order={1} size="h2">
        Taking part
      </Title>
      {!asked.data && <Loader aria-label="Looking up who took part" />}
      {asked.data && <Parts of={asked.data} />}
      {asked.data && <CountedPanel rules={asked.data.rules} />}
    </Stack>
  );
}

interface Row {
  member: string;
  name: string;
  group: string | null;
  part: TakenPart;
  worth: number;
}

/** Those of a name or group, the one who took part most first. */
function rowsOf({ sessions, rows, rules }: Participation, session: string, name: string): Row[] {
  const words = name.trim().toLowerCase();
  const column = sessions.findIndex((s) => s.id === session);
  return rows
    .filter((r) => !words || `${r.name} ${r.group ?? ''}`.toLowerCase().includes(words))
    .map(({ member, name: called, group, cells }) => {
      const part = column < 0 ? partsTogether(cells) : (cells[column] ?? NO_PART);
      return { member, name: called, group, part, worth: weighed(part, rules) };
    })
    .sort((a, b) => b.worth - a.worth || a.name.localeCompare(b.name));
}

function Parts({ of }: { of: Participation }) {
  const { code, term } = useThisCourse();
  const [session, setSession] = useState('');
  const [name, setName] = useState('');
  const rows = useMemo(() => rowsOf(of, session, name), [of, session, name]);
  if (!of.rules.participation) return <Empty>It is not counted in this course.</Empty>;
  if (!of.sessions.length) return <Empty>No session has been held yet.</Empty>;
  return (
    <Panel
      title="Who took part"
      about="By the relay’s own word for who is heard, what was written to the class or to those who teach, raised hands, and answered questions. Each student sees their own."
      action={
        <Button
          variant="default"
          onClick={() =>
            downloadCsv(`${code} taking part ${dateIn(term.zone, Date.now())}.csv`, csvOf(of, term.zone))
          }
        >
          Download as CSV
        </Button>
      }
    >
      <Group mb="sm">
        <NativeSelect
          aria-label="Which class"
          value={session}
          data={[
            { value: '', label: 'The term so far' },
            ...[...of.sessions].reverse().map((s) => ({
              value: s.id,
              label: `${s.title} ${s.number}, ${dayWords(dateIn(term.zone, s.startsAt))}`,
            })),
          ]}
          onChange={(e) => setSession(e.currentTarget.value)}
        />
        <TextInput
          aria-label="Name or group"
          placeholder="Name or group"
          w={180}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
      </Group>
      {rows.length === 0 ? <Empty>Nobody of this name or group.</Empty> : <Rows rows={rows} />}
    </Panel>
  );
}

function Rows({ rows }: { rows: readonly Row[] }) {
  const most = Math.max(1, ...rows.map((r) => r.worth));
  return (
    <Table fz="sm" stickyHeader>
      <Heads of={['Student', 'Spoke, minutes', 'Wrote', 'Hand', 'Answers', 'Worth']} />
      <Table.Tbody>
        {rows.map((r) => (
          <Table.Tr key={r.member}>
            <Table.Td fw={550}>
              {r.name}
              {r.group && (
                <Text span size="xs" c="dimmed">
                  {' '}
                  {r.group}
                </Text>
              )}
            </Table.Td>
            <Table.Td className="figures">{minutesWords(r.part.spokenMs)}</Table.Td>
            <Table.Td className="figures">{r.part.written}</Table.Td>
            <Table.Td className="figures">{r.part.hands}</Table.Td>
            <Table.Td className="figures">{r.part.answers}</Table.Td>
            <Table.Td>
              <span className={classes.worth} style={{ ['--share' as string]: r.worth / most }}>
                {r.worth}
              </span>
            </Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

const csvOf = ({ sessions, rows, rules }: Participation, zone: string) =>
  writeCsv(
    [
      ...['Name', 'Group', 'Spoke, minutes', 'Wrote', 'Hand', 'Answers', 'Worth'],
      ...sessions.flatMap((s) =>
        ['spoke', 'wrote', 'hand', 'answers'].map(
          (w) => `${s.title} ${s.number}, ${dayWords(dateIn(zone, s.startsAt))}: ${w}`,
        ),
      ),
    ],
    rows.map(({ name, group, cells }) => {
      const all = partsTogether(cells);
      const figures = ({ spokenMs, written, hands, answers }: TakenPart) => [
        ...[minutesWords(spokenMs), String(written), String(hands), String(answers)],
      ];
      return [
        ...[name, group ?? ''],
        ...figures(all),
        String(weighed(all, rules)),
        ...cells.flatMap((c) => (c ? figures(c) : ['', '', '', ''])),
      ];
    }),
  );

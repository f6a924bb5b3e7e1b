import {
  Button,
  Group,
  Progress,
  ScrollArea,
  SegmentedControl,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core';
import { useState } from 'react';
import type { CourseDetail, Delivery, LetterState, LetterTopic } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Heads } from '../ui/Heads';
import { Empty, Panel } from '../ui/Panel';
import type { UseMutationResult, UseQueryResult } from '@tanstack/react-query';

const STATE_WORDS: Record<LetterState, string> = {
  queued: 'on its way',
  sent: 'sent',
  failed: 'not delivered',
  bounced: 'came back',
  void: 'not needed any more',
};
const TOPIC_WORDS: Record<LetterTopic, string> = {
  invitation: 'Invitation',
  update: 'News of the plan',
  goodbye: 'Off the list',
  link: 'New link',
  reminder: 'Reminder',
  nudge: 'Nudge',
  missing: 'Nobody has rung in',
  notice: 'Notice',
  recording: 'Recording',
  question: 'Question',
  word: 'A word',
  leaving: 'Recordings that go',
  space: 'Space that ends',
};
const MOST = 300;

/** What became of each letter. */
export function LettersPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const [state, setState] = useState<'all' | LetterState>('all');
  const [search, setSearch] = useState('');
  const letters = useAsked<Delivery[]>(`/courses/${course.id}/deliveries`, {
    every: (known) => (known?.some((d) => d.state === 'queued') ? 1500 : 6000),
  });
  const aside = useAsked<{ at: number; fault: string; subject: string | null }[]>('/inbox/set-aside');
  const resend = useChange(
    (ids: number[]) =>
      ask<{ queued: number }>(`/courses/${course.id}/deliveries/resend`, 'POST', { letters: ids }),
    ({ queued }) => `${countWords(queued, 'letter')} on the way again.`,
  );
  const all = letters.data ?? [];
  const found = narrowed(all, state, search);
  const count = (s: LetterState) => all.filter((d) => d.state === s).length;
  const lost = found.filter((d) => d.state === 'bounced' || d.state === 'failed');
  const counted = all.length - count('void');
  return (
    <Stack>
      <Title order={1} size="h2">
        Letters
      </Title>
      {(aside.data?.length ?? 0) > 0 && <SetAside aside={aside} course={course} />}
      <Panel
        title="Delivery log"
        about={`${count('sent')} of ${counted} sent${count('bounced') ? `, ${count('bounced')} came back` : ''}`}
        action={
          <TextInput
            aria-label="Search the letters"
            placeholder="To whom, what"
            value={search}
            onChange={(e) => setSearch(e.currentTarget.value)}
          />
        }
      >
        {count('queued') > 0 && (
          <Progress value={(100 * count('sent')) / Math.max(1, counted)} mb="sm" aria-label="Letters sent" />
        )}
        <Which
          state={state}
          setState={setState}
          all={all}
          count={count}
          course={course}
          lost={lost}
          resend={resend}
        />
        {letters.data && found.length === 0 && (
          <Empty>{all.length ? 'No letter matches.' : 'No letter was written yet.'}</Empty>
        )}
        <Log found={found} course={course} resend={resend} />
      </Panel>
    </Stack>
  );
}

function Line({
  d,
  course,
  resend,
}: {
  d: Delivery;
  course: CourseDetail;
  resend: UseMutationResult<{ queued: number }, Error, number[]>;
}) {
  return (
    <Table.Tr>
      <Table.Td>
        <Text size="sm" fw={550}>
          {d.name}
        </Text>
        <Text size="xs" c="dimmed">
          {d.email}
        </Text>
      </Table.Td>
      <Table.Td>
        {TOPIC_WORDS[d.topic]}
        {d.subject && (
          <Text size="xs" c="dimmed">
            {d.subject}
          </Text>
        )}
      </Table.Td>
      <Table.Td c={d.state === 'failed' || d.state === 'bounced' ? 'var(--clay)' : undefined}>
        {STATE_WORDS[d.state]}
        {d.answer && `, ${d.answer}`}
        {d.fault && d.state !== 'sent' && <Text size="xs">{d.fault}</Text>}
      </Table.Td>
      <Table.Td className="figures">{instantWords(d.at, course.term.zone)}</Table.Td>
      <Table.Td>
        {course.role === 'teacher' && d.state !== 'queued' && d.state !== 'void' && (
          <Button size="compact-xs" variant="subtle" onClick={() => resend.mutate([d.id])}>
            Again
          </Button>
        )}
      </Table.Td>
    </Table.Tr>
  );
}

function Log({
  found,
  course,
  resend,
}: {
  found: Delivery[];
  course: CourseDetail;
  resend: UseMutationResult<{ queued: number }, Error, number[]>;
}) {
  return (
    <ScrollArea.Autosize mah={560} viewportProps={{ tabIndex: 0, 'aria-label': 'Delivery log, scrolls' }}>
      <Table fz="sm" stickyHeader>
        <Heads of={['To', 'What', 'State', 'When', 'What can be done']} />
        <Table.Tbody>
          {found.slice(0, MOST).map((d) => (
            <Line key={d.id} d={d} course={course} resend={resend} />
          ))}
        </Table.Tbody>
      </Table>
      {found.length > MOST && (
        <Text size="sm" c="dimmed" p="xs">
          and {found.length - MOST} more: search to find one
        </Text>
      )}
    </ScrollArea.Autosize>
  );
}

interface WhichProps {
  state: 'all' | LetterState;
  setState: (value: 'all' | LetterState) => void;
  all: Delivery[];
  count: (s: LetterState) => number;
  course: CourseDetail;
  lost: Delivery[];
  resend: UseMutationResult<{ queued: number }, Error, number[]>;
}

/** Letters narrowed by what became of them, and the lost ones sent again. */
function Which(props: WhichProps) {
  const { state, setState, all, count, course, lost, resend } = props;
  return (
    <Group justify="space-between" mb="xs">
      <SegmentedControl
        aria-label="Which letters"
        size="xs"
        value={state}
        onChange={(v) => setState(v as typeof state)}
        data={[
          { value: 'all', label: `All ${all.length}` },
          ...(['queued', 'sent', 'bounced', 'failed', 'void'] as const)
            .filter((s) => count(s) > 0)
            .map((s) => ({
              value: s,
              label: `${STATE_WORDS[s][0]!.toUpperCase()}${STATE_WORDS[s].slice(1)} ${count(s)}`,
            })),
        ]}
      />
      {course.role === 'teacher' && lost.length > 0 && (
        <Button
          size="compact-sm"
          loading={resend.isPending}
          onClick={() => resend.mutate(lost.map((d) => d.id))}
        >
          Send the {countWords(lost.length, 'lost letter')} again
        </Button>
      )}
    </Group>
  );
}

function SetAside({
  aside,
  course,
}: {
  aside: UseQueryResult<{ at: number; fault: string; subject: string | null }[]>;
  course: CourseDetail;
}) {
  return (
    <Panel
      title={`${countWords(aside.data!.length, 'letter')} could not be read`}
      about="They came in, were tried three times, and were set aside. Nothing else waits for them."
    >
      {aside.data!.map((l) => (
        <Text key={l.at} size="sm">
          {instantWords(l.at, course.term.zone)}: {l.subject ?? 'no subject'}
        </Text>
      ))}
    </Panel>
  );
}

/** Letters in a state, with the words searched for. */
function narrowed(all: Delivery[], state: 'all' | LetterState, search: string) {
  return all.filter(
    (d) =>
      (state === 'all' || d.state === state) &&
      `${d.name} ${d.email} ${d.subject} ${TOPIC_WORDS[d.topic]}`
        .toLowerCase()
        .includes(search.trim().toLowerCase()),
  );
}

import {
  Button,
  Group,
  Loader,
  NativeSelect,
  Select,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useState } from 'react';
import type {
  Capability,
  ExceptionInfo,
  ExceptionInput,
  MemberInfo,
  Permission,
} from '@nimble-bell/core/api';
import { dateIn, dateWords, instantWords, toEpochDay, toInstant } from '@nimble-bell/core/calendar';
import { PERMISSION_WORDS, rowOf, CAPABILITY_IDS } from '@nimble-bell/core/limits';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { serverNow } from '../app/clock';
import { useAsked, useChange } from '../app/queries';
import { Choice } from '../ui/Choice';
import { Heads } from '../ui/Heads';
import { Empty, Panel, Scrolls } from '../ui/Panel';
import { useRules } from './useRules';

/** What one person may, or may not, whatever the class may: until a date, with a reason that teachers see. */
export function ExceptionsPage() {
  const course = useThisCourse();
  const rules = useRules();
  return (
    <Stack>
      <Title order={1} size="h2">
        Exceptions
      </Title>
      {course.role === 'teacher' && <NewException />}
      <Panel
        title="In force"
        about="They hold in every session of the course, above all that is set in class; only hush is above them."
      >
        {!rules.data ? (
          <Loader aria-label="Looking for the exceptions" />
        ) : rules.data.exceptions.length ? (
          <Exceptions list={rules.data.exceptions} />
        ) : (
          <Empty>Nobody has one: everybody may what their class may.</Empty>
        )}
      </Panel>
    </Stack>
  );
}

const saying = ({ capability, state }: ExceptionInfo) =>
  `${rowOf(capability).label}: ${PERMISSION_WORDS[state].toLowerCase()}`;

function Exceptions({ list }: { list: ExceptionInfo[] }) {
  const course = useThisCourse();
  const ask = useAsk();
  const end = useChange(
    ({ id }: ExceptionInfo) => ask(`/courses/${course.id}/exceptions/${id}/end`, 'POST', {}),
    (_done, { name }) => `${name} may what the class may again.`,
  );
  return (
    <Scrolls label="Exceptions, scrolls">
      <Table fz="md" verticalSpacing="xs" miw={640}>
        <Heads of={['Who', 'What', 'Until', 'Why', 'Set by', '']} />
        <Table.Tbody>
          {list.map((e) => (
            <Table.Tr key={e.id}>
              <Table.Th scope="row">{e.name}</Table.Th>
              <Table.Td>{saying(e)}</Table.Td>
              <Table.Td>
                {e.until === null ? 'Without end' : dateWords(dateIn(course.term.zone, e.until - 1))}
              </Table.Td>
              <Table.Td>{e.reason}</Table.Td>
              <Table.Td>
                {e.by}
                <Text size="xs" c="dimmed">
                  {instantWords(e.at, course.term.zone)}
                </Text>
              </Table.Td>
              <Table.Td ta="right">
                {course.role === 'teacher' && (
                  <Button
                    variant="default"
                    size="compact-sm"
                    loading={end.isPending && end.variables.id === e.id}
                    onClick={() => end.mutate(e)}
                    aria-label={`End it: ${e.name}, ${saying(e)}`}
                  >
                    End it
                  </Button>
                )}
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Scrolls>
  );
}

interface Draft {
  member: string | null;
  capability: Capability;
  state: Permission;
  /** A date of the course; the whole of that day counts. */
  until: string | null;
  reason: string;
}

const BLANK: Draft = { member: null, capability: 'present', state: 'open', until: null, reason: '' };

function NewException() {
  const course = useThisCourse();
  const { zone } = course.term;
  const ask = useAsk();
  const [draft, setDraft] = useState(BLANK);
  const set = (more: Partial<Draft>) => setDraft({ ...draft, ...more });
  const add = useChange(
    (input: ExceptionInput) => ask(`/courses/${course.id}/exceptions`, 'POST', input),
    () => 'It is in force, in a class that is on as well.',
  );
  const submit = () => {
    const { member, until, ...rest } = draft;
    if (!member) return;
    const input = {
      ...rest,
      member,
      until: until === null ? null : toInstant(zone, toEpochDay(until) + 1, 0),
    };
    add.mutate(input, { onSuccess: () => setDraft(BLANK) });
  };
  return (
    <Panel title="A new exception" about="For one student, whatever the class may. Only teachers see why.">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          submit();
        }}
      >
        <Fields draft={draft} set={set} busy={add.isPending} />
        {draft.until === null && draft.member && (
          <Text size="sm" c="dimmed" mt="xs">
            It holds until you end it. Choose a date, as {dateWords(course.term.lastDay)}, and it ends by
            itself.
          </Text>
        )}
      </form>
    </Panel>
  );
}

interface FieldsProps {
  draft: Draft;
  set: (more: Partial<Draft>) => void;
  busy: boolean;
}

function Fields({ draft, set, busy }: FieldsProps) {
  const { term } = useThisCourse();
  return (
    <Group align="flex-end">
      <WhoAndWhat draft={draft} set={set} />
      <DateInput
        label="Until the end of"
        placeholder="Without end"
        clearable
        w={190}
        minDate={dateIn(term.zone, serverNow())}
        value={draft.until}
        onChange={(until) => set({ until })}
      />
      <TextInput
        label="Why"
        placeholder="For teachers alone"
        maxLength={300}
        flex="1 1 200px"
        value={draft.reason}
        onChange={(e) => set({ reason: e.currentTarget.value })}
      />
      <Button type="submit" loading={busy} disabled={!draft.member}>
        Set it
      </Button>
    </Group>
  );
}

function WhoAndWhat({ draft, set }: Omit<FieldsProps, 'busy'>) {
  const course = useThisCourse();
  const members = useAsked<MemberInfo[]>(`/courses/${course.id}/members`);
  const people = (members.data ?? [])
    .filter((m) => m.role === 'student' || m.role === 'guest')
    .map((m) => ({ value: m.id, label: m.name }));
  return (
    <>
      <Select
        label="Who"
        placeholder="Name"
        w={230}
        searchable
        required
        data={people}
        value={draft.member}
        onChange={(member) => set({ member })}
        nothingFoundMessage="Nobody on the class list"
      />
      <NativeSelect
        label="What"
        w={190}
        data={CAPABILITY_IDS.map((c) => ({ value: c, label: rowOf(c).label }))}
        value={draft.capability}
        onChange={(e) => set({ capability: e.currentTarget.value as Capability })}
      />
      <div>
        <Text size="sm" fw={500} mb={4} aria-hidden>
          Is
        </Text>
        <Choice
          label="Is"
          value={draft.state}
          onChange={(state) => set({ state })}
          options={rowOf(draft.capability).states.map((s) => ({ value: s, label: PERMISSION_WORDS[s] }))}
        />
      </div>
    </>
  );
}

import {
  Autocomplete,
  Button,
  Checkbox,
  Grid,
  Group,
  MultiSelect,
  Select,
  Stack,
  Text,
  TextInput,
} from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { useDebouncedValue } from '@mantine/hooks';
import type { Capability, CourseDetail, ListEditDraft, Role, SessionInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { rowOf } from '@nimble-bell/core/limits';
import { inOrder } from '../app/order';
import { ApiError } from '../app/api';
import { serverNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { Panel } from '../ui/Panel';
import { ListOutcomeView, useListPreview, useSaveEdit } from './ConfirmEdit';
import { ROLE_WORDS } from './words';

const ROLES: Role[] = ['student', 'assistant', 'teacher', 'guest', 'observer'];
const GUEST_HOURS = 2;

interface Fields {
  name: string;
  email: string;
  role: Role;
  group: string;
  scope: string[];
  capabilities: string[];
  invite: boolean;
}

/** The edit that the form stands for; null while something is missing. */
function editOf(v: Fields, ahead: SessionInfo[]): ListEditDraft | null {
  const of = (kind: string) => v.scope.filter((s) => s.startsWith(kind)).map((s) => s.slice(kind.length));
  const scope = v.scope.length ? { series: of('series:'), sessions: of('session:') } : null;
  const guest = v.role === 'guest';
  if (!v.name.trim() || !v.email.includes('@') || (guest && !scope?.sessions.length)) return null;
  const last = Math.max(0, ...ahead.filter((s) => scope?.sessions.includes(s.id)).map((s) => s.endsAt));
  return {
    edit: 'add',
    invite: v.invite,
    person: {
      name: v.name,
      email: v.email,
      role: v.role,
      group: v.group || null,
      scope: v.role === 'student' ? null : scope,
      until: guest ? last + GUEST_HOURS * 3_600_000 : null,
      capabilities: guest ? (v.capabilities as Capability[]) : [],
    },
  };
}

/** One more person: a latecomer, a co-teacher, a guest for one session with the rights chosen beforehand. */
export function AddPerson({ done }: { done: () => void }) {
  const course = useThisCourse();
  const save = useSaveEdit();
  const form = useForm<Fields>({
    initialValues: {
      name: '',
      email: '',
      role: 'student',
      group: '',
      scope: [],
      capabilities: ['speak', 'camera', 'present'],
      invite: true,
    },
  });
  const { role } = form.values;
  const ahead = course.sessions.filter((s) => s.endsAt > serverNow() && s.state !== 'cancelled');
  const choices = choicesOf({ role, course, ahead });
  const edit = editOf(form.values, ahead);
  const [asked] = useDebouncedValue(edit, 300);
  const preview = useListPreview(asked);
  const submit = form.onSubmit(() => {
    if (!edit) {
      form.setFieldError('scope', 'Say which session they come to.');
      return;
    }
    save.mutate(edit, {
      onSuccess: done,
      onError: (error) => {
        if (error instanceof ApiError)
          for (const f of error.fields) form.setFieldError(f.path.replace('person.', ''), f.message);
      },
    });
  });
  return (
    <Panel title="Add a person">
      <form onSubmit={submit}>
        <Who form={form} />
        <Stack gap="xs" mt="xs">
          <Text size="sm" c="dimmed">
            {/^[aeiou]/.test(role) ? 'An' : 'A'} {role} {ROLE_WORDS[role]}.
          </Text>
          <ForWhat role={role} form={form} choices={choices} />
          {role === 'guest' && <Rights form={form} />}
          {edit && preview.data && <ListOutcomeView outcome={preview.data} edit={asked} />}
          <Ending form={form} done={done} busy={save.isPending} />
        </Stack>
      </form>
    </Panel>
  );
}

/** Name, address and role. */
function Who({ form }: { form: UseFormReturnType<Fields> }) {
  return (
    <Grid>
      <Grid.Col span={{ base: 12, sm: 4 }}>
        <TextInput label="Name" required data-autofocus autoFocus {...form.getInputProps('name')} />
      </Grid.Col>
      <Grid.Col span={{ base: 12, sm: 5 }}>
        <TextInput label="E-mail" type="email" required {...form.getInputProps('email')} />
      </Grid.Col>
      <Grid.Col span={{ base: 6, sm: 3 }}>
        <Select label="Role" allowDeselect={false} data={ROLES} {...form.getInputProps('role')} />
      </Grid.Col>
    </Grid>
  );
}

/** The groups that there are are offered; that another one is new is said. */
function GroupInput({ form }: { form: UseFormReturnType<Fields> }) {
  const course = useThisCourse();
  const groups = [...new Set(course.series.map((s) => s.group).filter((g) => g !== null))].sort(inOrder);
  const typed = form.values.group.trim();
  const near = groups.find((g) => g.toLowerCase() === typed.toLowerCase());
  const isNew = typed !== '' && !groups.includes(typed);
  return (
    <Autocomplete
      label="Group"
      w={220}
      data={groups}
      description={
        isNew ? (near ? `Not the group ${near}: a new one` : 'A new group, without sessions yet') : undefined
      }
      {...form.getInputProps('group')}
    />
  );
}

/** A student's group, or the series and sessions that somebody else comes to. */
function ForWhat({
  role,
  form,
  choices,
}: {
  role: Role;
  form: UseFormReturnType<Fields>;
  choices: { value: string; label: string }[];
}) {
  return role === 'student' ? (
    <GroupInput form={form} />
  ) : (
    <MultiSelect
      label={role === 'guest' ? 'Which session' : 'For what'}
      placeholder={form.values.scope.length ? '' : role === 'guest' ? 'Choose' : 'The whole course'}
      searchable
      data={choices}
      {...form.getInputProps('scope')}
    />
  );
}

/** What a guest may, chosen beforehand. */
function Rights({ form }: { form: UseFormReturnType<Fields> }) {
  return (
    <Checkbox.Group label="May, whatever the limits say" {...form.getInputProps('capabilities')}>
      <Group mt={4} gap="md">
        {(['speak', 'camera', 'present', 'draw', 'writeToClass'] as const).map((c) => (
          <Checkbox key={c} value={c} label={rowOf(c).label} />
        ))}
      </Group>
    </Checkbox.Group>
  );
}

/** The invitation, and the way out. */
function Ending({ form, done, busy }: { form: UseFormReturnType<Fields>; done: () => void; busy: boolean }) {
  return (
    <Group justify="space-between">
      <Checkbox label="Send the invitation at once" {...form.getInputProps('invite', { type: 'checkbox' })} />
      <Group>
        <Button variant="subtle" onClick={done}>
          Close
        </Button>
        <Button type="submit" loading={busy}>
          Add {form.values.name.trim() || 'them'}
        </Button>
      </Group>
    </Group>
  );
}

/** Series and sessions ahead that somebody may come to. */
function choicesOf({ role, course, ahead }: { role: Role; course: CourseDetail; ahead: SessionInfo[] }) {
  const choices = [
    ...(role === 'guest'
      ? []
      : course.series.map((s) => ({ value: `series:${s.id}`, label: `All of ${s.title}` }))),
    ...ahead.map((s) => ({
      value: `session:${s.id}`,
      label: `${s.seriesTitle} ${s.number}, ${instantWords(s.startsAt, course.term.zone)}`,
    })),
  ];
  return choices;
}

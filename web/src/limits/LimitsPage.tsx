import { Button, Group, Radio, Stack, Table, Text, Title } from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { useBlocker, type Blocker } from 'react-router';
import { Permission, type CourseDetail, type Limits } from '@nimble-bell/core/api';
import { dateWords, instantWords } from '@nimble-bell/core/calendar';
import { limitsWords, PERMISSION_WORDS, rowOf, SHOWN_CAPABILITIES } from '@nimble-bell/core/limits';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';
import type { UseMutationResult } from '@tanstack/react-query';

const ABOUT: Record<Permission, string> = {
  closed: 'nobody does it',
  byHand: 'a raised hand, and you give the floor to that one',
  open: 'everyone may',
};

/** Those that can be set here. */
const shownOf = (limits: Limits) => Object.fromEntries(SHOWN_CAPABILITIES.map((c) => [c, limits[c]]));

/** What students may do in every session of the course, until a live change. */
export function LimitsPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const form = useForm<Limits>({ initialValues: course.limits });
  const mayPlan = course.role === 'teacher';
  const save = useChange(
    (limits: Limits) => ask(`/courses/${course.id}/limits`, 'PUT', { limits: shownOf(limits) }),
    () => 'The limits are in force, in a class that is on as well.',
  );
  const dirty = form.isDirty();
  const leaving = useBlocker(() => dirty && !save.isPending && !save.isSuccess);
  return (
    <Stack>
      <Title order={1} size="h2">
        What students may do
      </Title>
      <InForce />
      <Panel
        title="Limits of the course"
        about="You and your assistants may always do everything. In class each can be changed with one press."
      >
        <Table fz="md" verticalSpacing={9} withRowBorders>
          <Heads />
          <Table.Tbody>
            {SHOWN_CAPABILITIES.map((c) => (
              <Table.Tr key={c} role="radiogroup" aria-label={rowOf(c).label}>
                <Table.Td fw={550}>{rowOf(c).label}</Table.Td>
                {Permission.options.map((p) => (
                  <Table.Td key={p}>
                    <Radio
                      name={c}
                      value={p}
                      disabled={!mayPlan}
                      aria-label={`${rowOf(c).label}: ${PERMISSION_WORDS[p]}`}
                      checked={form.values[c] === p}
                      onChange={() => form.setFieldValue(c, p)}
                    />
                  </Table.Td>
                ))}
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {mayPlan && <Ending save={save} dirty={dirty} course={course} form={form} leaving={leaving} />}
      </Panel>
    </Stack>
  );
}

/** The proof: what is in force now, who set it and when. */
function InForce() {
  const course = useThisCourse();
  const { zone } = course.term;
  return (
    <Panel
      title="In force now"
      about={
        course.limitsSet
          ? `Set by ${course.limitsSet.by}, ${instantWords(course.limitsSet.at, zone)}`
          : `The college's own, since ${dateWords(course.term.firstDay)}. Save to make them the course's.`
      }
    >
      <Stack gap={6} data-testid="in-force">
        {limitsWords(course.limits).map(({ state, doings }) => (
          <Group key={state} gap={8} wrap="nowrap" align="baseline">
            <PermissionMark state={state} />
            <Text>
              <strong>{PERMISSION_WORDS[state]}:</strong> {doings.length ? doings.join(', ') : 'nothing'}
            </Text>
          </Group>
        ))}
      </Stack>
    </Panel>
  );
}

function Heads() {
  return (
    <Table.Thead>
      <Table.Tr>
        <Table.Th>Students</Table.Th>
        {Permission.options.map((p) => (
          <Table.Th key={p} w={200}>
            <Group gap={8} wrap="nowrap">
              <PermissionMark state={p} />
              <span>
                {PERMISSION_WORDS[p]}
                <Text size="xs" c="dimmed" fw={400}>
                  {ABOUT[p]}
                </Text>
              </span>
            </Group>
          </Table.Th>
        ))}
      </Table.Tr>
    </Table.Thead>
  );
}

interface EndingProps {
  save: UseMutationResult<unknown, Error, Limits>;
  dirty: boolean;
  course: CourseDetail;
  form: UseFormReturnType<Limits>;
  leaving: Blocker;
}

function Ending(props: EndingProps) {
  const { save, dirty, course, form, leaving } = props;
  return (
    <Group mt="md">
      <Button
        loading={save.isPending}
        disabled={!dirty && course.limitsSet !== null}
        onClick={() => save.mutate(form.values, { onSuccess: () => form.resetDirty() })}
      >
        Save the limits
      </Button>
      {dirty && (
        <Button variant="default" onClick={form.reset}>
          Back to what is saved
        </Button>
      )}
      {leaving.state === 'blocked' && (
        <Text role="alert" c="var(--clay)">
          Not saved yet.{' '}
          <Button variant="subtle" onClick={() => leaving.proceed()}>
            Leave all the same
          </Button>
        </Text>
      )}
    </Group>
  );
}

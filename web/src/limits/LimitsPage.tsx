import { Group, Loader, Radio, Stack, Table, Text, Title } from '@mantine/core';
import { useState } from 'react';
import type { Capability, CourseDetail, Limits, Permission } from '@nimble-bell/core/api';
import { dateWords, instantWords } from '@nimble-bell/core/calendar';
import {
  limitsWords,
  PERMISSION_WORDS,
  PERMISSIONS,
  rowOf,
  SHOWN_CAPABILITIES,
} from '@nimble-bell/core/limits';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Ending } from './Ending';
import { useKeeping, useKept, type Kept } from '../plan/useKeptDraft';
import { Panel, Scrolls } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';

const ABOUT: Record<Permission, string> = {
  closed: 'nobody does it',
  byHand: 'a raised hand, and you give the floor to that one',
  open: 'everyone may',
};

/** Those that can be set here. */
const shownOf = (limits: Limits) => Object.fromEntries(SHOWN_CAPABILITIES.map((c) => [c, limits[c]]));

/** What students may do in every session of the course, until a live change. What was left half done is taken up. */
export function LimitsPage() {
  const course = useThisCourse();
  const kept = useKept<Limits>(keyOf(course));
  if (kept === undefined) return <Loader aria-label="Looking for what you chose" />;
  return <LimitsForm kept={kept} />;
}

const keyOf = (course: CourseDetail) => `limits/${course.id}`;

function LimitsForm({ kept }: { kept: Kept<Limits> | null }) {
  const course = useThisCourse();
  const ask = useAsk();
  const [limits, setLimits] = useState<Limits>({ ...course.limits, ...kept?.body });
  const mayPlan = course.role === 'teacher';
  const save = useChange(
    () => ask(`/courses/${course.id}/limits`, 'PUT', { limits: shownOf(limits) }),
    () => 'The limits are in force, in a class that is on as well.',
  );
  const dirty = SHOWN_CAPABILITIES.some((c) => limits[c] !== course.limits[c]);
  const forget = useKeeping(keyOf(course), mayPlan && dirty ? limits : null);
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
        <Scrolls label="Limits, scrolls">
          <Table fz="md" verticalSpacing={9} withRowBorders layout="fixed" miw={480}>
            <Heads />
            <Table.Tbody>
              {SHOWN_CAPABILITIES.map((c) => (
                <LimitRow
                  key={c}
                  capability={c}
                  state={limits[c]}
                  set={mayPlan ? (state) => setLimits({ ...limits, [c]: state }) : null}
                />
              ))}
            </Table.Tbody>
          </Table>
        </Scrolls>
        {mayPlan && (
          <Ending
            label="Save the limits"
            save={() => save.mutate(undefined, { onSuccess: () => void forget() })}
            saving={save.isPending}
            dirty={dirty}
            saves={dirty || course.limitsSet === null}
            back={() => {
              setLimits(course.limits);
              void forget();
            }}
          />
        )}
      </Panel>
    </Stack>
  );
}

interface LimitRowProps {
  capability: Capability;
  state: Permission;
  set: ((state: Permission) => void) | null;
}

const LimitRow = ({ capability: c, state, set }: LimitRowProps) => (
  <Table.Tr>
    <Table.Th scope="row">{rowOf(c).label}</Table.Th>
    {PERMISSIONS.map((p) => (
      <Table.Td key={p}>
        {rowOf(c).states.includes(p) && (
          <Radio
            name={c}
            value={p}
            disabled={!set}
            aria-label={`${rowOf(c).label}: ${PERMISSION_WORDS[p]}`}
            checked={state === p}
            onChange={() => set?.(p)}
          />
        )}
      </Table.Td>
    ))}
  </Table.Tr>
);

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
        <Table.Th scope="col">Students</Table.Th>
        {PERMISSIONS.map((p) => (
          <Table.Th key={p} scope="col">
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

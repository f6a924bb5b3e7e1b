import { Group, Loader, Stack, Text, Title } from '@mantine/core';
import { useState } from 'react';
import type { CourseDetail, Limits } from '@nimble-bell/core/api';
import { dateWords, instantWords } from '@nimble-bell/core/calendar';
import { limitsWords, PERMISSION_WORDS, CAPABILITY_IDS } from '@nimble-bell/core/limits';
import { noSettings } from '@nimble-bell/core/settings';
import { valueWords, writingTimes } from '@nimble-bell/core/writing';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Ending } from './Ending';
import { LimitsTable } from './LimitsTable';
import { TimesFields } from './TimesFields';
import { useRules, useSetRules } from './useRules';
import { useKeeping, useKept, type Kept } from '../plan/useKeptDraft';
import { Panel } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';

/** Those that can be set here. */
const shownOf = (limits: Limits) => Object.fromEntries(CAPABILITY_IDS.map((c) => [c, limits[c]]));

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
  const dirty = CAPABILITY_IDS.some((c) => limits[c] !== course.limits[c]);
  const forget = useKeeping(keyOf(course), mayPlan && dirty ? limits : null);
  return (
    <Stack>
      <Title order={1} size="h2">
        What students may do
      </Title>
      <InForce />
      <Panel
        title="Limits of the course"
        about="You and your assistants may always do everything. In class what is said, shown and written changes with one press."
      >
        <LimitsTable
          limits={limits}
          set={mayPlan ? (c, state) => setLimits({ ...limits, [c]: state }) : null}
        />
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
      <AroundClass mayPlan={mayPlan} />
    </Stack>
  );
}

/** Writing before and after class, as the course says it; a rule sheet on a series or a session may say it otherwise there. */
function AroundClass({ mayPlan }: { mayPlan: boolean }) {
  const rules = useRules();
  const set = useSetRules('It is in force.');
  if (!rules.data) return null;
  const { college, course } = rules.data;
  const layers = [
    { name: 'college' as const, settings: { ...noSettings(), writing: college.writing } },
    { name: 'course' as const, settings: { ...noSettings(), writing: course.writing } },
  ];
  const inForce = writingTimes(layers);
  return (
    <Panel
      title="Writing before and after class"
      about="The same limits at other times: on the session’s page before its door opens and after its class, and in the room before ring-in and past the planned end."
    >
      <TimesFields
        value={(key) => course.writing[key]?.value}
        nothing="As the college"
        from={(key) => (course.writing[key] ? '' : `(now: ${valueWords(inForce[key])})`)}
        set={
          mayPlan ? (key, value) => set.mutate({ at: { layer: 'course' }, writing: { [key]: value } }) : null
        }
      />
    </Panel>
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

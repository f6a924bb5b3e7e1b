import {
  Button,
  Group,
  MultiSelect,
  NumberInput,
  SegmentedControl,
  Select,
  Stack,
  Switch,
  Text,
  Title,
  type SwitchProps,
} from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useForm, type GetInputPropsReturnType } from '@mantine/form';
import { useMediaQuery } from '@mantine/hooks';
import { useEffect } from 'react';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { RecordingPlan, type CourseDetail } from '@nimble-bell/core/api';
import { countWords, dayWords, toEpochDay, toLocalDate } from '@nimble-bell/core/calendar';
import { alsoWords, LEAVABLE_WORDS, leftOutWords, whenWords } from '@nimble-bell/core/recording';
import { LEAVABLE, type Ends, type Leavable } from '@nimble-bell/core/settings';
import { useAsk, type Ask } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import { LatestRules } from '../limits/LatestRules';
import { BEGINS, beginsOf, ENDS } from './choices';
import { RecordingGrid } from './RecordingGrid';
import { Space } from './Space';

/** Recorded by itself, kept until, watched by whom: once for the term. */
export function RecordingPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const plan = course.recordingPlan;
  const mayPlan = course.role === 'teacher';

  return (
    <Stack>
      <Title order={1} size="h2">
        Recording
      </Title>
      <Panel title="In force now">
        <Text data-testid="plan-in-force">
          {plan ? planWords(plan) : 'Nothing is recorded yet: there is no plan.'}
        </Text>
        <Space />
      </Panel>
      <PlanForm plan={plan} course={course} ask={ask} mayPlan={mayPlan} />
      {plan && mayPlan && <LatestRules />}
      {plan && <RecordingGrid />}
    </Stack>
  );
}

function planWords(plan: RecordingPlan): string {
  const when = plan.automatic ? `Every session is recorded ${whenWords(plan)}` : 'Nothing is recorded';
  const watch = plan.studentsWatch ? 'Students on the class list may watch' : 'Students may not watch';
  const without = plan.leavesOut?.length ? `, without ${leftOutWords(plan.leavesOut)}` : '';
  const times = plan.studentsWatch ? timesWords(plan) : '';
  return `${when}${without}${alsoWords(plan)}, and kept until ${dayWords(plan.keepUntil)}. ${watch}${times}; downloads are ${plan.studentsDownload ? 'on' : 'off'}.`;
}

const timesWords = ({ watchAfterDays: after, watchForDays: during }: RecordingPlan): string =>
  (after ? ` from ${countWords(after, 'day')} after class` : '') +
  (during ? `, for ${countWords(during, 'day')}` : '');

interface PlanFormProps {
  plan: RecordingPlan | null;
  course: CourseDetail;
  ask: Ask;
  mayPlan: boolean;
}

const WATCHING = [
  ['studentsWatch', 'Students on the class list may watch'],
  ['studentsDownload', 'Students may download'],
  ['tellsAll', 'Everybody is told when one can be watched, also those who were there'],
] as const;

/** What one begins with. */
const usualPlan = ({ term }: CourseDetail): RecordingPlan => ({
  automatic: true,
  ...{ begins: 'ringIn', ends: 'dismissal' },
  keepUntil: toLocalDate(toEpochDay(term.lastDay) + 60),
  ...{ studentsWatch: true, studentsDownload: false },
  ...{ leavesOut: [], studentsCameras: false, tables: false, tellsAll: false },
  ...{ watchAfterDays: 0, watchForDays: 0 },
});

function PlanForm({ plan, course, ask, mayPlan }: PlanFormProps) {
  const form = useForm<RecordingPlan>({
    initialValues: { ...usualPlan(course), ...plan },
    validate: zod4Resolver(RecordingPlan),
  });
  // What is said elsewhere, in the table below or by somebody else, is taken up while nothing is typed here.
  const said = JSON.stringify(plan);
  useEffect(() => {
    if (form.isDirty()) return;
    const values = { ...usualPlan(course), ...plan };
    form.setInitialValues(values);
    form.setValues(values);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [said]);
  const ticked = (key: keyof RecordingPlan) => form.getInputProps(key, { type: 'checkbox' });
  const save = useChange(
    (values: RecordingPlan) => ask(`/courses/${course.id}/recording-plan`, 'PUT', values),
    () => 'The recording plan is in force.',
  );
  return (
    <Panel
      title="Recording plan"
      about="Only teachers record. Everyone in the room is told when it begins, pauses and ends."
    >
      <Stack
        component="form"
        onSubmit={form.onSubmit((v) => save.mutate(v, { onSuccess: () => form.resetDirty() })) as never}
        gap="md"
      >
        <Recorded mayPlan={mayPlan} values={form.values} set={form.setValues} />
        <LeftOut mayPlan={mayPlan} field={form.getInputProps('leavesOut')} />
        <Besides {...{ mayPlan, ticked, left: form.values.leavesOut }} />
        <DateInput
          label="Keep until"
          description="Afterwards it is gone for everyone"
          w={260}
          disabled={!mayPlan}
          {...form.getInputProps('keepUntil')}
        />
        {WATCHING.map(([key, label]) => (
          <Switch key={key} label={label} disabled={!mayPlan} {...ticked(key)} />
        ))}
        <Times
          {...{ mayPlan }}
          after={form.getInputProps('watchAfterDays')}
          during={form.getInputProps('watchForDays')}
        />
        {mayPlan && (
          <Group>
            <Button type="submit" loading={save.isPending} disabled={plan !== null && !form.isDirty()}>
              Save the recording plan
            </Button>
          </Group>
        )}
      </Stack>
    </Panel>
  );
}

/** What of students is in it besides, and where it is not all the same: what is left out goes further. */
const BESIDES = [
  {
    of: 'studentsCameras',
    label: 'Students’ cameras too, while they have the floor',
    about: 'Of those who agree to it when they enter',
    without: 'names',
    not: 'Not where names of students are left out: a face is a name',
  },
  {
    of: 'tables',
    label: 'What is said at tables too, each table’s by itself',
    about:
      'Sound alone, heard afterwards by who sat there and by those who teach. Without it the recording is paused while the class is at tables',
    without: 'studentsVoices',
    not: 'Not where students’ voices are left out',
  },
] as const;

interface BesidesProps {
  mayPlan: boolean;
  left?: Leavable[];
  ticked: (key: keyof RecordingPlan) => SwitchProps;
}

const Besides = ({ mayPlan, left, ticked }: BesidesProps) =>
  BESIDES.map(({ of, label, about, without, not }) => (
    <Switch
      key={of}
      label={label}
      disabled={!mayPlan}
      description={left?.includes(without) ? not : about}
      {...ticked(of)}
    />
  ));

interface RecordedProps {
  mayPlan: boolean;
  values: RecordingPlan;
  set: (more: Partial<RecordingPlan>) => void;
}

/** Whether sessions are recorded, and from when until when: said in one breath. */
function Recorded({ mayPlan, values, set }: RecordedProps) {
  const { automatic, begins = 'ringIn', ends = 'dismissal' } = values;
  return (
    <Group align="flex-end">
      <Select
        label="Sessions are recorded"
        {...{ w: 290, allowDeselect: false, disabled: !mayPlan }}
        data={[...BEGINS, { value: 'never', label: 'not at all' }]}
        value={automatic ? String(begins) : 'never'}
        onChange={(v) =>
          set(v === 'never' ? { automatic: false } : { automatic: true, begins: beginsOf(v!) })
        }
      />
      {automatic && (
        <Select
          aria-label="Until when they are recorded"
          {...{ w: 220, allowDeselect: false, disabled: !mayPlan }}
          data={ENDS}
          value={ends}
          onChange={(v) => set({ ends: v as Ends })}
        />
      )}
    </Group>
  );
}

interface TimesProps {
  mayPlan: boolean;
  after: GetInputPropsReturnType;
  during: GetInputPropsReturnType;
}

/** From when students watch, and for how long. */
const Times = ({ mayPlan, after, during }: TimesProps) => (
  <Group align="flex-start">
    <NumberInput
      label="Watched from so many days after class"
      {...{ min: 0, max: 365, allowDecimal: false, w: 290, disabled: !mayPlan }}
      {...after}
    />
    <NumberInput
      label="For so many days; 0: as long as it is kept"
      {...{ min: 0, max: 365, allowDecimal: false, w: 290, disabled: !mayPlan }}
      {...during}
    />
  </Group>
);

/** What is often kept, by one press. */
const SETS: { label: string; leavesOut: readonly Leavable[] }[] = [
  { label: 'Everything', leavesOut: [] },
  { label: 'Sound and screen', leavesOut: LEAVABLE.filter((l) => !/Voices|screens|captions|names/.test(l)) },
  { label: 'Sound alone', leavesOut: LEAVABLE.filter((l) => !/Voices|captions|names/.test(l)) },
];
const sameSet = (a: readonly Leavable[], b: readonly Leavable[]) =>
  a.length === b.length && a.every((l) => b.includes(l));

/** What recordings are of: one of the usual sets, or whatever is chosen to be left out. */
function LeftOut({ mayPlan, field }: { mayPlan: boolean; field: GetInputPropsReturnType }) {
  const left: Leavable[] = field.value ?? [];
  const narrow = useMediaQuery('(max-width: 30em)');
  return (
    <Stack gap="xs">
      <Text size="sm" fw={500} id="kept-of-it">
        What is kept
      </Text>
      <SegmentedControl
        aria-labelledby="kept-of-it"
        w="fit-content"
        orientation={narrow ? 'vertical' : 'horizontal'}
        disabled={!mayPlan}
        data={SETS.map((s) => s.label)}
        value={SETS.find((s) => sameSet(s.leavesOut, left))?.label ?? ''}
        onChange={(label) => field.onChange(SETS.find((s) => s.label === label)!.leavesOut)}
      />
      <MultiSelect
        label="Left out of it"
        description="Everything else is kept"
        placeholder={left.length ? '' : 'Nothing is left out'}
        maw={520}
        styles={{ inputField: { minHeight: 24 } }}
        clearable
        disabled={!mayPlan}
        data={LEAVABLE.map((value) => ({ value, label: LEAVABLE_WORDS[value] }))}
        {...field}
      />
    </Stack>
  );
}

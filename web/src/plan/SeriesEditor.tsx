import { Alert, Button, Group, Loader, MultiSelect, Paper, Select, Text } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { useDebouncedValue } from '@mantine/hooks';
import {
  memo,
  useCallback,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import {
  isStanding,
  MeetingPattern,
  SeriesInput,
  type CourseDetail,
  type PlanEditDraft,
  type PlanOutcome,
  type SeriesInfo,
  type SeriesKind,
} from '@nimble-bell/core/api';
import {
  countWords,
  instantWords,
  periodsFor,
  sessionsOf,
  termDays,
  type PlannedSeries,
} from '@nimble-bell/core/calendar';
import { ApiError, useAsk } from '../app/api';
import { draft } from '../app/course';
import { useChange } from '../app/queries';
import { told } from '../app/told';
import { Faulty } from '../ui/Faulty';
import { LiveDates } from './LiveDates';
import { EndFields, partOf, PatternFields, type Form } from './PatternFields';
import { draftOf, emptyForm, fieldOf, formFaults, formOf, type SeriesForm } from './seriesForm';
import { useKeeping, useKept, type Kept } from './useKeptDraft';
import { NumberField, TextField } from './typedFields';
import { usePreview } from './usePreview';
import classes from './plan.module.css';

interface Props {
  course: CourseDetail;
  series: SeriesInfo | null;
  done: () => void;
}

const keyOf = ({ course, series }: Props) => `series/${course.id}/${series?.id ?? 'new'}`;

/** A meeting pattern entered once, its dates beside it with every keystroke. What was left half typed is taken up. */
export function SeriesEditor(props: Props) {
  const kept = useKept<SeriesForm>(keyOf(props));
  if (kept === undefined) return <Loader aria-label="Looking for what you typed" />;
  return <Editor {...props} kept={kept} />;
}

function Editor({ course, series, done, kept }: Props & { kept: Kept<SeriesForm> | null }) {
  const [saved] = useState(() => (series ? formOf(series) : { ...emptyForm(), title: freeTitle(course) }));
  const form = useForm<SeriesForm>({
    initialValues: kept ? { ...saved, ...kept.body } : saved,
    validate: formFaults,
  });
  const dirty = JSON.stringify(form.values) !== JSON.stringify(saved);
  const forget = useKeeping(keyOf({ course, series, done }), dirty ? form.values : null);
  const [outcome] = useState(() => told<Outcome>({ planned: null, told: 0, on: undefined, dirty: false }));
  const { save, submit } = useSaving({ course, form, outcome, series, forget, done });
  const throwAway = useStable(() => {
    form.setValues(saved);
    void forget().then(done);
  });
  const standing = isStanding(form.values.kind);
  return (
    <form onSubmit={submit} noValidate>
      {kept && dirty && <TakenUp kept={kept} course={course} />}
      <div className={classes.editor}>
        <div className={classes.sheet}>
          <Fields form={form} course={course} standing={standing} />
          <Ending
            busy={save.isPending}
            standing={standing}
            outcome={outcome}
            back={dirty || Boolean(series) || course.series.length > 0}
            throwAway={throwAway}
          />
        </div>
        <Beside values={form.values} dirty={dirty} series={series} course={course} outcome={outcome} />
      </div>
    </form>
  );
}

/** What the form comes to: worked out beside it, a breath after each key. */
interface Outcome {
  planned: PlannedSeries | null;
  /** How many people saving tells of it. */
  told: number;
  /** What the server's word on it was made on. */
  on: string | undefined;
  /** Whether something was typed that is not saved. */
  dirty: boolean;
}
type ToldOutcome = ReturnType<typeof told<Outcome>>;

interface BesideProps {
  values: SeriesForm;
  dirty: boolean;
  series: SeriesInfo | null;
  course: CourseDetail;
  outcome: ToldOutcome;
}

/** The dates of what is typed; the ribbon shows them too. The form is not drawn again by them. */
function Beside({ values, dirty, series, course, outcome }: BesideProps) {
  // The field that is typed into comes first; the dates follow in the same breath, and give way to the next key.
  const typed = useDeferredValue(values);
  const planned = useDates(course, typed);
  const { edit, preview } = usePlanned({ typed, series, course, planned });
  // A word on what stood there before anything was typed is no word on this.
  const [wasDirty] = useDebouncedValue(dirty, QUIET_MS);
  const { told: people = [], on } = preview.outcome ?? {};
  useLayoutEffect(
    () => outcome.set({ planned, told: people.length, on, dirty }),
    [outcome, planned, people.length, on, dirty],
  );
  if (isStanding(values.kind)) return <StandingWords kind={values.kind} course={course} />;
  return (
    <LiveDates
      planned={planned}
      course={course}
      expected={typed.expected}
      outcome={preview.outcome}
      edit={edit}
      fault={dirty && wasDirty ? preview.fault : null}
    />
  );
}

/** "Lecture", unless there is one. */
const freeTitle = (course: CourseDetail) =>
  course.series.some((s) => s.title === 'Lecture') ? '' : 'Lecture';

const SaveWords = ({ standing, outcome }: { standing: boolean; outcome: ToldOutcome }) =>
  outcome.useOf(({ planned, told: people }) => {
    const sessions = planned?.sessions.length ?? 0;
    if (people > 0) return `Save and tell ${countWords(people, 'person', 'people')}`;
    return standing || !sessions ? 'Save' : `Save ${countWords(sessions, 'session')}`;
  });

const BackWords = ({ outcome }: { outcome: ToldOutcome }) =>
  outcome.useOf(({ dirty }) => (dirty ? 'Throw away what I typed' : 'Back'));

const KINDS: { value: SeriesKind; label: string }[] = [
  { value: 'class', label: 'Class sessions' },
  { value: 'group', label: 'A small group' },
  { value: 'office', label: 'Office hours, drop-in' },
  { value: 'open', label: 'Room open all term' },
  { value: 'capture', label: 'Recorded alone' },
];

interface Part {
  form: Form;
  course: CourseDetail;
}

const NameFields = partOf(['title', 'kind'], function NameFields({ form }: Part) {
  return (
    <Group grow align="flex-start">
      <TextField form={form} path="title" label="Name of the series" maxLength={90} />
      <Select label="What it is" data={KINDS} allowDeselect={false} {...form.getInputProps('kind')} />
    </Group>
  );
});

const NumberFields = partOf(['lingerMinutes', 'expected'], function NumberFields({ form }: Part) {
  return (
    <Group align="flex-start">
      <NumberField
        form={form}
        path="lingerMinutes"
        label="Linger"
        unit="min"
        description="Open afterwards, for questions"
        min={0}
        max={120}
        w={200}
      />
      <NumberField
        form={form}
        path="expected"
        label="Sessions you expect"
        description="The dates are checked against it"
        min={1}
        max={400}
        w={220}
      />
    </Group>
  );
});

/** What most series never need, in a line of its own. */
const MoreFields = partOf(['firstDate', 'group', 'leads'], function MoreFields({ form, course }: Part) {
  const { values } = form;
  const [open, setOpen] = useState(Boolean(values.firstDate || values.group || values.leads.length));
  if (!open)
    return (
      <Button variant="subtle" size="compact-sm" w="fit-content" px={0} onClick={() => setOpen(true)}>
        Later start, group or who leads it
      </Button>
    );
  return (
    <Group align="flex-start">
      <DateInput
        label="Not before"
        placeholder="The term's first day"
        clearable
        w={190}
        value={values.firstDate || null}
        onChange={(v) => form.setFieldValue('firstDate', v ?? '')}
        error={form.errors.firstDate}
      />
      <TextField
        form={form}
        path="group"
        label="Only for group"
        placeholder="The whole class"
        maxLength={40}
        w={150}
      />
      <MultiSelect
        label="Led by"
        placeholder={values.leads.length ? undefined : 'The teachers of the course'}
        w={250}
        data={course.teachers.map((t) => ({ value: t.id, label: t.name }))}
        {...form.getInputProps('leads')}
      />
    </Group>
  );
});

function StandingWords({ kind, course }: { kind: SeriesKind; course: CourseDetail }) {
  return (
    <Paper withBorder p="lg" h="100%">
      <Text fw={600} mb="xs">
        {kind === 'open' ? 'A room without dates' : 'A lecture with nobody else there'}
      </Text>
      <Text c="dimmed">
        {kind === 'open'
          ? `It stands open for the class all through ${course.term.name}, behind the same links. Ring in whenever you like.`
          : 'Only teachers enter. It records by itself from ring-in, and students see it once you post it.'}
      </Text>
    </Paper>
  );
}

/** Saves a series; what the server finds wrong is shown at its field. */
function useSaving({
  course,
  form,
  outcome,
  series,
  forget,
  done,
}: {
  course: CourseDetail;
  form: UseFormReturnType<SeriesForm>;
  outcome: ToldOutcome;
  series: SeriesInfo | null;
  forget: () => Promise<void>;
  done: () => void;
}) {
  const ask = useAsk();
  const save = useChange(
    (input: PlanEditDraft) =>
      ask<PlanOutcome>(`/courses/${course.id}/plan`, 'POST', input, { on: outcome.get().on }),
    () => {
      const { planned } = outcome.get();
      return `${form.values.title} is saved${planned ? `: ${countWords(planned.sessions.length, 'session')}` : ''}.`;
    },
  );
  const submit = form.onSubmit((values) => {
    const series_ = draftOf(values);
    const input: PlanEditDraft = series
      ? { edit: 'change-series', id: series.id, series: series_ }
      : { edit: 'add-series', series: [series_] };
    save.mutate(input, {
      onSuccess: () => void forget().then(done),
      onError: (error) => {
        if (error instanceof ApiError)
          for (const f of error.fields) form.setFieldError(fieldOf(f.path), f.message);
      },
    });
  });
  return { save, submit };
}

function useDates(course: CourseDetail, typed: SeriesForm) {
  const days = useMemo(() => termDays(course.term), [course.term]);
  // The dates are shown as soon as they can be said, whatever else is missing.
  const planned = useMemo(() => {
    const pattern = MeetingPattern.safeParse(draftOf(typed).pattern).data;
    return pattern ? sessionsOf(course.term, pattern, days, periodsFor(pattern, course.bellTimes)) : null;
  }, [typed, course.term, course.bellTimes, days]);
  // Before the dates are painted, so that one frame shows all of it.
  useLayoutEffect(() => draft.set(planned), [planned]);
  useEffect(() => () => draft.set(null), []);
  return planned;
}

/** One function for as long as the part lives, that does what the newest would. */
function useStable(act: () => void): () => void {
  const newest = useRef(act);
  useEffect(() => {
    newest.current = act;
  });
  return useCallback(() => newest.current(), []);
}

function TakenUp({ kept, course }: { kept: Kept<SeriesForm>; course: CourseDetail }) {
  return (
    <Alert
      color="tide"
      mb="md"
      title={`Taken up from what you typed ${instantWords(kept.at, course.term.zone)}`}
    >
      It is kept until you save it or throw it away.
    </Alert>
  );
}

interface EndingProps {
  busy: boolean;
  standing: boolean;
  outcome: ToldOutcome;
  /** Whether there is a way back from here. */
  back: boolean;
  throwAway: () => void;
}

// Of what a key changes only the words on the buttons follow, not the buttons.
const Ending = memo(function Ending({ busy, standing, outcome, back, throwAway }: EndingProps) {
  return (
    <div className={classes.actions}>
      <Group className={classes.buttons!}>
        <Button type="submit" loading={busy}>
          <SaveWords standing={standing} outcome={outcome} />
        </Button>
        {back && (
          <Button variant="default" onClick={throwAway}>
            <BackWords outcome={outcome} />
          </Button>
        )}
      </Group>
    </div>
  );
});

const QUIET_MS = 250;

/** What saving would do, asked when one has stopped typing. */
function usePlanned({
  typed,
  series,
  course,
  planned,
}: {
  typed: SeriesForm;
  series: SeriesInfo | null;
  course: CourseDetail;
  planned: PlannedSeries | null;
}) {
  const [quiet] = useDebouncedValue(typed, QUIET_MS);
  const edit = useMemo((): PlanEditDraft | null => {
    const parsed = SeriesInput.safeParse(draftOf(quiet));
    if (!parsed.success) return null;
    return series
      ? { edit: 'change-series', id: series.id, series: parsed.data }
      : { edit: 'add-series', series: [parsed.data] };
  }, [quiet, series]);
  const preview = usePreview(course.id, planned?.sessions.length === 0 ? null : edit, 0);
  return { edit, preview };
}

function Fields({
  form,
  course,
  standing,
}: {
  form: UseFormReturnType<SeriesForm>;
  course: CourseDetail;
  standing: boolean;
}) {
  return (
    <>
      <NameFields form={form} course={course} />
      {!standing && (
        <Faulty label="When it meets" fault={form.errors.pattern} className={classes.together}>
          <PatternFields form={form} course={course} />
        </Faulty>
      )}
      {!standing && <NumberFields form={form} course={course} />}
      {!standing && <EndFields form={form} course={course} />}
      {!standing && <MoreFields form={form} course={course} />}
    </>
  );
}

import {
  Alert,
  Button,
  Grid,
  Group,
  NumberInput,
  Paper,
  Radio,
  Select,
  Stack,
  Text,
  TextInput,
} from '@mantine/core';
import { DateInput, TimePicker } from '@mantine/dates';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { useContext, useEffect, useMemo } from 'react';
import { useBlocker } from 'react-router';
import { SeriesInput, type CourseDetail, type SeriesInfo, type Weekday } from '@nimble-bell/core/api';
import { countWords, sessionsOf, termDays, WEEKDAYS } from '@nimble-bell/core/calendar';
import { ApiError, useAsk } from '../app/api';
import { DraftContext } from '../app/course';
import { useChange } from '../app/queries';
import { LiveDates } from './LiveDates';
import { emptyForm, formOf, inputOf, toggleDay, type SeriesForm } from './seriesForm';
import classes from './plan.module.css';

interface Props {
  course: CourseDetail;
  series: SeriesInfo | null;
  done: () => void;
}

/** A meeting pattern entered once, its dates beside it with every keystroke. */
export function SeriesEditor({ course, series, done }: Props) {
  const ask = useAsk();
  const { setDraft } = useContext(DraftContext);
  const form = useForm<SeriesForm>({
    initialValues: series ? formOf(series) : emptyForm(),
    validate: (values) => faultsOf(values, series),
  });
  const days = useMemo(() => termDays(course.term), [course.term]);
  const planned = useMemo(() => {
    const parsed = SeriesInput.safeParse(inputOf(form.values, series?.pattern));
    const draft = parsed.success ? parsed.data.pattern : null;
    return draft && sessionsOf(course.term, draft, days);
  }, [form.values, course.term, days, series]);

  useEffect(() => setDraft(planned), [planned, setDraft]);
  useEffect(() => () => setDraft(null), [setDraft]);

  const save = useChange(
    (input: SeriesInput) =>
      series ? ask(`/series/${series.id}`, 'PUT', input) : ask(`/courses/${course.id}/series`, 'POST', input),
    () => `${form.values.title} is saved: ${countWords(planned?.sessions.length ?? 0, 'session')}.`,
  );
  const leaving = useBlocker(() => form.isDirty() && !save.isSuccess && !save.isPending);
  const submit = form.onSubmit((values) =>
    save.mutate(inputOf(values, series?.pattern), {
      onSuccess: done,
      onError: (error) => {
        if (error instanceof ApiError)
          for (const f of error.fields) form.setFieldError(f.path.split('.')[0]!, f.message);
      },
    }),
  );
  return (
    <form onSubmit={submit} noValidate>
      {leaving.state === 'blocked' && (
        <Alert color="brass" title="This series is not saved yet" mb="md" role="alertdialog">
          <Group>
            <Button onClick={() => leaving.reset()} autoFocus>
              Stay and save it
            </Button>
            <Button variant="default" onClick={() => leaving.proceed()}>
              Leave without saving
            </Button>
          </Group>
        </Alert>
      )}
      <Grid gap="lg">
        <Grid.Col span={{ base: 12, md: 6 }}>
          <Paper withBorder p="lg">
            <Stack>
              <TextInput label="Name of the series" maxLength={90} {...form.getInputProps('title')} />
              <DayChooser form={form} />
              <Group align="flex-start" grow>
                <NumberInput
                  label="Linger"
                  suffix=" min"
                  description="Open afterwards, for questions"
                  min={0}
                  max={120}
                  {...form.getInputProps('lingerMinutes')}
                />
                <Select
                  label="How often"
                  description="A break uses up no turn"
                  data={[
                    { value: '1', label: 'Every teaching week' },
                    { value: '2', label: 'Every 2nd teaching week' },
                    { value: '3', label: 'Every 3rd teaching week' },
                    { value: '4', label: 'Every 4th teaching week' },
                  ]}
                  allowDeselect={false}
                  value={String(form.values.every)}
                  onChange={(v) => form.setFieldValue('every', Number(v))}
                />
              </Group>
              <EndChooser form={form} course={course} />
              <NumberInput
                label="Sessions you expect"
                description="Optional: the dates are checked against it"
                min={1}
                max={400}
                w={220}
                {...form.getInputProps('expected')}
              />
              <Group>
                <Button type="submit" loading={save.isPending}>
                  {planned?.sessions.length
                    ? `Save ${countWords(planned.sessions.length, 'session')}`
                    : 'Save'}
                </Button>
                {(series ?? course.series.length > 0) && (
                  <Button variant="default" onClick={() => (form.reset(), done())}>
                    Cancel
                  </Button>
                )}
              </Group>
            </Stack>
          </Paper>
        </Grid.Col>
        <Grid.Col span={{ base: 12, md: 6 }}>
          <LiveDates planned={planned} course={course} expected={form.values.expected} />
        </Grid.Col>
      </Grid>
    </form>
  );
}

type Form = UseFormReturnType<SeriesForm>;

function DayChooser({ form }: { form: Form }) {
  const { days } = form.values;
  return (
    <div>
      <Text size="sm" fw={500} mb={4} id="weekdays">
        Weekdays
      </Text>
      <div className={classes.weekdays} role="group" aria-labelledby="weekdays">
        {WEEKDAYS.map((day) => (
          <button
            key={day}
            type="button"
            className={classes.weekday}
            aria-pressed={days.some((d) => d.day === day)}
            aria-label={day}
            onClick={() => form.setFieldValue('days', toggleDay(days, day))}
          >
            {day.slice(0, 3)}
          </button>
        ))}
      </div>
      {form.errors.days && (
        <Text size="sm" c="var(--clay)" role="alert">
          {form.errors.days}
        </Text>
      )}
      {days.map((d, i) => (
        <DayRow key={d.day} form={form} day={d.day} index={i} />
      ))}
    </div>
  );
}

function DayRow({ form, day, index }: { form: Form; day: Weekday; index: number }) {
  return (
    <Group mt="xs" align="flex-end" wrap="nowrap">
      <Text w={92} pb={7} tt="capitalize">
        {day}
      </Text>
      <TimePicker
        label={index === 0 ? 'Start' : undefined}
        aria-label={`Start on ${day}`}
        hoursInputLabel={`Hour on ${day}`}
        minutesInputLabel={`Minute on ${day}`}
        format="24h"
        w={110}
        {...form.getInputProps(`days.${index}.start`)}
      />
      <NumberInput
        label={index === 0 ? 'Length' : undefined}
        aria-label={`Minutes on ${day}`}
        suffix=" min"
        min={1}
        max={720}
        w={130}
        {...form.getInputProps(`days.${index}.minutes`)}
      />
    </Group>
  );
}

function EndChooser({ form, course }: { form: Form; course: CourseDetail }) {
  const { endsBy } = form.values;
  return (
    <div>
      <Radio.Group
        label="Until"
        value={endsBy}
        onChange={(v) => form.setFieldValue('endsBy', v as SeriesForm['endsBy'])}
      >
        <Group mt={6}>
          <Radio value="term" label="the term's end" />
          <Radio value="date" label="a date" />
          <Radio value="count" label="a number of sessions" />
        </Group>
      </Radio.Group>
      {endsBy === 'date' && (
        <DateInput
          mt="xs"
          w={220}
          label="Last date"
          valueFormat="ddd D MMM YYYY"
          minDate={course.term.firstDay}
          maxDate={course.term.lastDay}
          value={form.values.endDate || null}
          onChange={(v) => form.setFieldValue('endDate', v ?? '')}
          error={form.errors.endDate}
        />
      )}
      {endsBy === 'count' && (
        <NumberInput mt="xs" w={220} label="Sessions" min={1} max={400} {...form.getInputProps('count')} />
      )}
    </div>
  );
}

/** The schema's faults, at the fields of the form. */
function faultsOf(values: SeriesForm, series: SeriesInfo | null): Record<string, string> {
  const result = SeriesInput.safeParse(inputOf(values, series?.pattern));
  if (result.success) return {};
  const faults: Record<string, string> = {};
  for (const issue of result.error.issues) {
    const path = issue.path.join('.').replace(/^pattern\./, '');
    const field = path === 'ends.date' ? 'endDate' : path === 'ends.count' ? 'count' : path;
    faults[field] ??=
      field === 'endDate'
        ? 'Choose a date.'
        : field === 'count'
          ? 'Give a number from 1 to 400.'
          : issue.message;
  }
  return faults;
}

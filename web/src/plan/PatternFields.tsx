import { shortDay } from '../app/styledFields';
import { Group, SegmentedControl, Select, Text } from '@mantine/core';
import { DateInput, DatePickerInput, TimePicker } from '@mantine/dates';
import type { UseFormReturnType } from '@mantine/form';
import { memo, type ComponentType, type ReactNode } from 'react';
import type { CourseDetail, PatternKind, Weekday } from '@nimble-bell/core/api';
import { WEEKDAYS } from '@nimble-bell/core/calendar';
import { Faulty } from '../ui/Faulty';
import { toggleDay, togglePeriod, type SeriesForm } from './seriesForm';
import { NumberField } from './typedFields';
import classes from './plan.module.css';

export type Form = UseFormReturnType<SeriesForm>;

interface Part {
  form: Form;
  course: CourseDetail;
}

/**
 * Draws a part of the form anew only when a field of its own, or a fault there, has changed: a keystroke in one field
 * leaves the others alone. The form reads and writes through references, so that an older one serves as well.
 */
export function partOf<P extends Part>(fields: (keyof SeriesForm)[], View: ComponentType<P>) {
  const same = ({ form: { values, errors } }: Part, { form: was }: Part) =>
    fields.every((f) => errors[f] === was.errors[f] && alike(values[f], was.values[f]));
  return memo(View, (a, b) => a.course === b.course && same(a, b)) as unknown as ComponentType<P>;
}

/** The form copies what is in lists and objects with every change. */
const alike = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b));

const KINDS: { value: PatternKind; label: string }[] = [
  { value: 'weekly', label: 'By the week' },
  { value: 'daily', label: 'By the day' },
  { value: 'monthly', label: 'By the month' },
  { value: 'dates', label: 'On dates' },
];

/** When a series meets: the kind of its pattern and what that kind asks for. */
export function PatternFields({ form, course }: Part) {
  const { patternKind } = form.values;
  return (
    <>
      <KindFields form={form} course={course} />
      {patternKind === 'weekly' && <WeeklyFields form={form} course={course} />}
      {patternKind === 'monthly' && <MonthlyFields form={form} />}
      {patternKind === 'dates' && (
        <DatePickerInput
          type="multiple"
          label="Dates"
          description="Press each day it takes place"
          valueFormat={shortDay()}
          placeholder="No date yet"
          defaultDate={course.term.firstDay}
          value={form.values.dates}
          onChange={(dates) => form.setFieldValue('dates', dates)}
          error={form.errors.dates}
        />
      )}
      {patternKind !== 'weekly' && <TimeFields form={form} />}
    </>
  );
}

const KindFields = partOf(['patternKind'], function KindFields({ form }: Part) {
  return (
    <div>
      <Text size="sm" fw={500} mb={4} id="pattern-kind">
        It meets
      </Text>
      <SegmentedControl
        aria-labelledby="pattern-kind"
        data={KINDS}
        value={form.values.patternKind}
        onChange={(v) => form.setFieldValue('patternKind', v as PatternKind)}
      />
    </div>
  );
});

function TimeFields({ form }: { form: Form }) {
  return (
    <Group align="flex-start">
      <TimePicker
        label="Start"
        hoursInputLabel="Hour"
        minutesInputLabel="Minute"
        w={110}
        {...form.getInputProps('start')}
      />
      <NumberField form={form} path="minutes" label="Length" unit="min" min={1} max={720} w={130} />
      {form.values.patternKind !== 'dates' && (
        <NumberField
          form={form}
          path="every"
          label={form.values.patternKind === 'daily' ? 'Every … days' : 'Every … months'}
          min={1}
          max={26}
          w={130}
        />
      )}
    </Group>
  );
}

function MonthlyFields({ form }: { form: Form }) {
  return (
    <Group align="flex-end">
      <SegmentedControl
        aria-label="Day of the month"
        data={[
          { value: 'weekday', label: 'On a weekday' },
          { value: 'date', label: 'On a day' },
        ]}
        value={form.values.monthBy}
        onChange={(v) => form.setFieldValue('monthBy', v as SeriesForm['monthBy'])}
      />
      {form.values.monthBy === 'date' ? (
        <NumberField form={form} path="onDate" label="Day" min={1} max={31} w={90} />
      ) : (
        <>
          <Select
            label="Which"
            w={110}
            allowDeselect={false}
            data={[
              { value: '1', label: '1st' },
              { value: '2', label: '2nd' },
              { value: '3', label: '3rd' },
              { value: '4', label: '4th' },
              { value: '5', label: '5th' },
              { value: '-1', label: 'Last' },
            ]}
            {...form.getInputProps('nth')}
          />
          <Select
            label="Weekday"
            w={150}
            allowDeselect={false}
            data={weekdayData}
            {...form.getInputProps('nthDay')}
          />
        </>
      )}
    </Group>
  );
}

export const capitalised = (day: string) => day[0]!.toUpperCase() + day.slice(1);
export const weekdayData = WEEKDAYS.map((day) => ({ value: day, label: capitalised(day) }));

const TURNS = [1, 2, 3, 4].map((n) => ({
  value: String(n),
  label: n === 1 ? 'Every week' : `Every ${['', '', '2nd', '3rd', '4th'][n]} week`,
}));

interface WeekdaysProps {
  form: Form;
  /** The days that are chosen, with commas. */
  chosen: string;
  fault: ReactNode;
}

const Weekdays = memo(
  function Weekdays({ form, chosen, fault }: WeekdaysProps) {
    return (
      <Faulty label="Weekdays" fault={fault} className={classes.weekdays}>
        {WEEKDAYS.map((day) => (
          <button
            key={day}
            type="button"
            className={classes.weekday}
            aria-pressed={chosen.split(',').includes(day)}
            aria-label={day}
            onClick={() => form.setFieldValue('days', toggleDay(form.getValues().days, day))}
          >
            {day.slice(0, 3)}
          </button>
        ))}
      </Faulty>
    );
  },
  (a, b) => a.chosen === b.chosen && a.fault === b.fault,
);

function WeeklyFields({ form, course }: { form: Form; course: CourseDetail }) {
  const { days } = form.values;
  return (
    <div>
      <div className={classes.partName} aria-hidden>
        Weekdays
      </div>
      <Weekdays form={form} chosen={days.map((d) => d.day).join()} fault={form.errors.days} />
      {days.map((d, i) => (
        <DayRow key={d.day} form={form} course={course} day={d.day} index={i} />
      ))}
      <OftenFields form={form} course={course} />
    </div>
  );
}

const OftenFields = partOf(['every', 'weeks', 'bellTimes'], function OftenFields({ form, course }: Part) {
  const { bellTimes } = form.values;
  return (
    <Group mt="sm" align="flex-end">
      <Select
        label="How often"
        w={160}
        data={TURNS}
        allowDeselect={false}
        value={String(form.values.every)}
        onChange={(v) => form.setFieldValue('every', Number(v))}
      />
      {form.values.every !== 1 && (
        <Select
          label="Counting"
          w={210}
          allowDeselect={false}
          data={[
            { value: 'teaching', label: 'teaching weeks, breaks aside' },
            { value: 'calendar', label: 'calendar weeks' },
          ]}
          {...form.getInputProps('weeks')}
        />
      )}
      {course.bellTimes.length > 0 && (
        <Select
          label="Times"
          w={180}
          allowDeselect={false}
          data={[
            { value: '', label: 'by the clock' },
            ...course.bellTimes.map((b) => ({ value: b.id, label: `bell times: ${b.name}` })),
          ]}
          value={bellTimes}
          onChange={(v) => form.setFieldValue('bellTimes', v ?? '')}
        />
      )}
    </Group>
  );
});

type DayProps = Part & { day: Weekday; index: number };

/** Drawn anew for its own day only. */
const DayRow = memo(DayFields, (a, b) => {
  const own = ({ form, index, day }: DayProps) =>
    JSON.stringify([
      day,
      form.values.bellTimes,
      form.values.days[index],
      ['start', 'minutes', 'periods'].map((f) => form.errors[`days.${index}.${f}`]),
    ]);
  return a.course === b.course && a.index === b.index && own(a) === own(b);
});

function DayFields({ form, course, day, index }: DayProps) {
  const bells = course.bellTimes.find((b) => b.id === form.values.bellTimes);
  const row = form.values.days[index]!;
  const fault = form.errors[`days.${index}.start`];
  return (
    <div className={classes.day}>
      <span className={classes.dayName}>{day}</span>
      {bells ? (
        <Faulty label={`Periods on ${day}`} fault={fault} className={classes.weekdays}>
          {bells.periods.map((p) => (
            <button
              key={p.name}
              type="button"
              className={classes.period}
              aria-pressed={row.periods.includes(p.name)}
              onClick={() =>
                form.setFieldValue(
                  `days.${index}.periods`,
                  togglePeriod(
                    row.periods,
                    p.name,
                    bells.periods.map((x) => x.name),
                  ),
                )
              }
            >
              {p.name}{' '}
              <span>
                {p.start}–{p.end}
              </span>
            </button>
          ))}
        </Faulty>
      ) : (
        <>
          <DayStart form={form} course={course} day={day} index={index} />
          <DayMinutes form={form} course={course} day={day} index={index} />
        </>
      )}
    </div>
  );
}

/** One field of one day. */
const dayField = (field: 'start' | 'minutes', View: ComponentType<DayProps>) =>
  memo(View, (a, b) => {
    const own = ({ form, index, day }: DayProps) =>
      JSON.stringify([day, index, form.values.days[index]?.[field], form.errors[`days.${index}.${field}`]]);
    return own(a) === own(b);
  });

const DayStart = dayField('start', function DayStart({ form, day, index }: DayProps) {
  return (
    <TimePicker
      label={index === 0 ? 'Start' : undefined}
      aria-label={`Start on ${day}`}
      hoursInputLabel={`Hour on ${day}`}
      minutesInputLabel={`Minute on ${day}`}
      w={110}
      {...form.getInputProps(`days.${index}.start`)}
    />
  );
});

const DayMinutes = dayField('minutes', function DayMinutes({ form, day, index }: DayProps) {
  return (
    <NumberField
      form={form}
      path={`days.${index}.minutes`}
      label={index === 0 ? 'Length' : undefined}
      aria-label={`Minutes on ${day}`}
      unit="min"
      min={1}
      max={720}
      w={130}
    />
  );
});

const ENDS: { value: SeriesForm['endsBy']; label: string }[] = [
  { value: 'term', label: "Term's end" },
  { value: 'date', label: 'A date' },
  { value: 'count', label: 'A number' },
  { value: 'hours', label: 'Contact hours' },
];

export const EndFields = partOf(
  ['endsBy', 'endDate', 'count', 'hours'],
  function EndFields({ form, course }: Part) {
    const { endsBy } = form.values;
    return (
      <div>
        <Text size="sm" fw={500} mb={4} id="until">
          Until
        </Text>
        <Group align="flex-start">
          <SegmentedControl
            aria-labelledby="until"
            data={ENDS}
            value={endsBy}
            onChange={(v) => form.setFieldValue('endsBy', v as SeriesForm['endsBy'])}
          />
          {endsBy === 'date' && (
            <DateInput
              aria-label="Last date"
              placeholder="Last date"
              w={180}
              minDate={course.term.firstDay}
              maxDate={course.term.lastDay}
              value={form.values.endDate || null}
              onChange={(v) => form.setFieldValue('endDate', v ?? '')}
              error={form.errors.endDate}
            />
          )}
          {endsBy === 'count' && (
            <NumberField
              form={form}
              path="count"
              aria-label="Sessions"
              unit="sessions"
              w={150}
              min={1}
              max={400}
            />
          )}
          {endsBy === 'hours' && (
            <NumberField
              form={form}
              path="hours"
              aria-label="Hours"
              unit="hours"
              w={150}
              min={0.5}
              max={2000}
              step={0.5}
            />
          )}
        </Group>
      </div>
    );
  },
);

import { Button, Grid, Group, Paper, Select, Stack, Text, TextInput } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useMemo, useState } from 'react';
import { Term, type CollegeOutcome, type TermInfo, type Weekday } from '@nimble-bell/core/api';
import {
  countWords,
  dateWords,
  swapWords,
  writeAcademicYear,
  type AcademicYear,
} from '@nimble-bell/core/calendar';
import { ApiError, useAsk } from '../app/api';
import { serverNow } from '../app/clock';
import { useChange } from '../app/queries';
import { bytesOf, useReadingOf } from '../app/reading';
import { daysOffFrom } from '../plan/calendarReader';
import { capitalised, weekdayData } from '../plan/PatternFields';
import { AcademicYearPreview } from './AcademicYearPreview';
import { CollegeOutcomeView } from './CollegeOutcomeView';
import { TermCalendar, type Span } from './TermCalendar';
import { ZoneSelect } from '../ui/ZoneSelect';
import classes from './college.module.css';

interface Props {
  known: TermInfo | null;
  fresh: Term;
  made: (id: string) => void;
}

const termOf = ({ id, courses, ...term }: TermInfo): Term => term;

/** A term as a calendar to press and drag on, with its days off and swaps beside it. */
export function TermEditor({ known, fresh, made }: Props) {
  const form = useForm<Term>({ initialValues: known ? termOf(known) : fresh, validate: zod4Resolver(Term) });
  const { values } = form;
  const [chosen, setChosen] = useState<Span | null>(null);
  const [read, setRead] = useState<AcademicYear | null>(null);
  const valid = useMemo(() => Term.safeParse(values).success, [values]);
  const { outcome, setOutcome, busy, submit, store } = useSaving({
    form,
    known,
    values,
    made,
  });
  const { addOff, addSwap, take } = spansInto({ chosen, form, values, setChosen, setRead });
  return (
    <form onSubmit={submit} noValidate>
      <Grid gap="lg">
        <Grid.Col span={{ base: 12, md: 5 }}>
          <Paper withBorder p="lg">
            <Stack>
              <Basics form={form} />
              <SpanForm
                key={`${chosen?.from}${chosen?.to}`}
                span={chosen}
                addOff={addOff}
                addSwap={addSwap}
                clear={() => setChosen(null)}
              />
              <Listed term={values} set={(more) => form.setValues(more)} />
              <Files term={values} valid={valid} read={setRead} />
              {read && <AcademicYearPreview year={read} take={take} leave={() => setRead(null)} />}
              {outcome && known && (
                <CollegeOutcomeView
                  outcome={outcome}
                  letters={{ path: `/terms/${known.id}/letters`, body: values }}
                  busy={busy}
                  save={() => store(values)}
                  back={() => setOutcome(null)}
                />
              )}
              {!outcome && <Buttons busy={busy} known={known} form={form} />}
            </Stack>
          </Paper>
        </Grid.Col>
        <Grid.Col span={{ base: 12, md: 7 }}>
          <TermCalendar term={values} chosen={chosen} choose={setChosen} />
        </Grid.Col>
      </Grid>
    </form>
  );
}

const ZONES = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((z) => z !== 'UTC')];

interface SpanFormProps {
  span: Span | null;
  addOff: (name: string) => void;
  addSwap: (follows: Weekday, name: string) => void;
  clear: () => void;
}

/** What the chosen days become. */
function SpanForm({ span, addOff, addSwap, clear }: SpanFormProps) {
  const [name, setName] = useState('');

  if (!span)
    return (
      <Text size="sm" c="dimmed">
        Press a day in the calendar, or drag over several, to make them days off or to swap a day.
      </Text>
    );
  const one = span.from === span.to;
  const words = one ? dateWords(span.from) : `${dateWords(span.from)} to ${dateWords(span.to)}`;
  return (
    <div className={classes.span} role="group" aria-label={words}>
      <Text fw={600} size="sm" mb={4}>
        {words}
      </Text>
      <TextInput
        aria-label="What they are called"
        placeholder={one ? 'Harbour Day' : 'Reading week'}
        maxLength={80}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          if (name.trim()) addOff(name.trim());
        }}
        data-autofocus
        mb="xs"
      />
      <Group gap="xs">
        <Button size="compact-sm" disabled={!name.trim()} onClick={() => addOff(name.trim())}>
          {one ? 'Make it a day off' : 'Make them days off'}
        </Button>
        {one && <Swap addSwap={addSwap} name={name} />}
        <Button size="compact-sm" variant="subtle" onClick={clear}>
          Neither
        </Button>
      </Group>
    </div>
  );
}

function Listed({ term, set }: { term: Term; set: (more: Partial<Term>) => void }) {
  return (
    <div>
      {term.daysOff.map((off, i) => (
        <Group key={`${off.from}${off.name}`} justify="space-between" wrap="nowrap" gap="xs">
          <Text size="sm">
            {dateWords(off.from)}
            {off.to > off.from && ` to ${dateWords(off.to)}`}: {off.name}
          </Text>
          <Button
            variant="subtle"
            size="compact-sm"
            aria-label={`Remove ${off.name}`}
            onClick={() => set({ daysOff: term.daysOff.filter((_, n) => n !== i) })}
          >
            Remove
          </Button>
        </Group>
      ))}
      {term.daySwaps.map((swap, i) => (
        <Group key={swap.date} justify="space-between" wrap="nowrap" gap="xs">
          <Text size="sm">{swapWords(swap)}</Text>
          <Button
            variant="subtle"
            size="compact-sm"
            aria-label={`Remove ${swap.name}`}
            onClick={() => set({ daySwaps: term.daySwaps.filter((_, n) => n !== i) })}
          >
            Remove
          </Button>
        </Group>
      ))}
      {!term.daysOff.length && !term.daySwaps.length && (
        <Text size="sm" c="dimmed">
          {countWords(0, 'day')} off so far.
        </Text>
      )}
    </div>
  );
}

/** The academic calendar as a file, in and out. */
function Files(props: { term: Term; valid: boolean; read: (year: AcademicYear) => void }) {
  const { term, valid, read } = props;
  const reading = useReadingOf(async (file: File) => daysOffFrom(await bytesOf(file), term));
  const write = () => {
    const url = URL.createObjectURL(
      new Blob([writeAcademicYear(term, serverNow())], { type: 'text/calendar' }),
    );
    const link = document.createElement('a');
    link.href = url;
    link.download = `${term.name || 'term'}.ics`;
    link.click();
    URL.revokeObjectURL(url);
  };
  return (
    <Group gap="xs">
      <Button variant="default" size="compact-sm" component="label" loading={reading.isPending}>
        Read days off from .ics
        <input
          type="file"
          accept=".ics,text/calendar"
          hidden
          aria-label="Read days off from an .ics file"
          onChange={(e) => {
            const file = e.currentTarget.files?.[0];
            e.currentTarget.value = '';
            if (file) reading.mutate(file, { onSuccess: read });
          }}
        />
      </Button>
      <Button variant="default" size="compact-sm" onClick={write} disabled={!valid}>
        Write as .ics
      </Button>
    </Group>
  );
}

/** What saving does: a new term is made; a known one is asked first what it changes. */
function useSaving({
  form,
  known,
  values,
  made,
}: {
  form: UseFormReturnType<Term>;
  known: TermInfo | null;
  values: Term;
  made: (id: string) => void;
}) {
  const ask = useAsk();
  const [outcome, setOutcome] = useState<CollegeOutcome | null>(null);
  const failed = (error: Error) => {
    if (error instanceof ApiError) for (const f of error.fields) form.setFieldError(f.path, f.message);
  };
  const create = useChange(
    (term: Term) => ask<{ id: string }>('/terms', 'POST', term),
    () => 'The term is made.',
  );
  const preview = useChange((term: Term) => ask<CollegeOutcome>(`/terms/${known!.id}/preview`, 'POST', term));
  const save = useChange(
    (term: Term) => ask<CollegeOutcome>(`/terms/${known!.id}`, 'PUT', term),
    () => `${values.name} is saved.`,
  );
  const submit = form.onSubmit((term) => {
    if (!known) return create.mutate(term, { onSuccess: ({ id }) => made(id), onError: failed });
    preview.mutate(term, {
      onSuccess: (o) => (o.courses.length ? setOutcome(o) : store(term)),
      onError: failed,
    });
  });
  const store = (term: Term) =>
    save.mutate(term, {
      onSuccess: () => {
        setOutcome(null);
        form.resetDirty(term);
      },
      onError: failed,
    });
  const busy = create.isPending || preview.isPending || save.isPending;
  return { outcome, setOutcome, busy, submit, store };
}

/** What is said of the chosen days, and what a file brought, into the term. */
function spansInto({
  chosen,
  form,
  values,
  setChosen,
  setRead,
}: {
  chosen: Span | null;
  form: UseFormReturnType<Term>;
  values: Term;
  setChosen: (value: Span | null) => void;
  setRead: (value: AcademicYear | null) => void;
}) {
  const addOff = (name: string) => {
    if (!chosen) return;
    form.setFieldValue(
      'daysOff',
      [...values.daysOff, { ...chosen, name }].sort((a, b) => (a.from < b.from ? -1 : 1)),
    );
    setChosen(null);
  };
  const addSwap = (follows: Weekday, name: string) => {
    if (!chosen) return;
    const others = values.daySwaps.filter((s) => s.date !== chosen.from);
    form.setFieldValue(
      'daySwaps',
      [...others, { date: chosen.from, follows, name }].sort((a, b) => (a.date < b.date ? -1 : 1)),
    );
    setChosen(null);
  };
  const take = (more: Pick<AcademicYear, 'daysOff' | 'daySwaps'>) => {
    form.setFieldValue(
      'daysOff',
      [...values.daysOff, ...more.daysOff].sort((a, b) => (a.from < b.from ? -1 : 1)),
    );
    form.setFieldValue('daySwaps', [...values.daySwaps, ...more.daySwaps]);
    setRead(null);
  };
  return { addOff, addSwap, take };
}

function Basics({ form }: { form: UseFormReturnType<Term> }) {
  return (
    <>
      <TextInput
        label="Name of the term"
        placeholder="Autumn evenings"
        maxLength={80}
        {...form.getInputProps('name')}
      />
      <Group grow align="flex-start">
        <DateInput label="First day" {...form.getInputProps('firstDay')} />
        <DateInput label="Last day" {...form.getInputProps('lastDay')} />
      </Group>
      <ZoneSelect label="Home time zone" zones={ZONES} {...form.getInputProps('zone')} />
    </>
  );
}

interface ButtonsProps {
  busy: boolean;
  known: TermInfo | null;
  form: UseFormReturnType<Term>;
}

function Buttons(props: ButtonsProps) {
  const { busy, known, form } = props;
  return (
    <Group>
      <Button type="submit" loading={busy} disabled={known !== null && !form.isDirty()}>
        {known ? 'Save the term' : 'Make the term'}
      </Button>
      {form.isDirty() && (
        <Button variant="default" onClick={() => form.reset()}>
          Throw the changes away
        </Button>
      )}
    </Group>
  );
}

/** Another weekday's timetable on that day. */
function Swap({ addSwap, name }: { addSwap: (follows: Weekday, name: string) => void; name: string }) {
  const [follows, setFollows] = useState<string>('monday');
  return (
    <>
      <Text size="sm">or it follows</Text>
      <Select
        aria-label="The weekday it follows"
        size="xs"
        w={130}
        data={weekdayData}
        allowDeselect={false}
        value={follows}
        onChange={(v) => setFollows(v!)}
      />
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => addSwap(follows as Weekday, name.trim() || `${capitalised(follows)} timetable`)}
      >
        Swap it
      </Button>
    </>
  );
}

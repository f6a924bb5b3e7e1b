import { Button, Group, Paper, Stack, Text, TextInput } from '@mantine/core';
import { TimePicker } from '@mantine/dates';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useState } from 'react';
import { BellTimesInput, type BellTimes, type CollegeOutcome } from '@nimble-bell/core/api';
import { toClock, toMinutes } from '@nimble-bell/core/calendar';
import { ApiError, useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Faulty } from '../ui/Faulty';
import { Empty, Panel } from '../ui/Panel';
import { CollegeOutcomeView } from './CollegeOutcomeView';
import type { UseMutationResult } from '@tanstack/react-query';

/** Named sets of periods. */
export function BellTimesPanel({ sets }: { sets: BellTimes[] }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Panel
      title="Bell times"
      about="The named hours of the day: a series may say “Thursday, P1 and P2” and follow them when they change."
      action={
        open !== 'new' && (
          <Button variant="default" onClick={() => setOpen('new')}>
            New bell times
          </Button>
        )
      }
    >
      <Stack>
        {sets.length === 0 && open !== 'new' && (
          <Empty>There are no bell times yet; clock times do as well.</Empty>
        )}
        {sets.map((set) =>
          open === set.id ? (
            <BellTimesForm key={set.id} known={set} close={() => setOpen(null)} />
          ) : (
            <Group key={set.id} justify="space-between">
              <Text>
                <strong>{set.name}</strong>:{' '}
                <span className="figures">
                  {set.periods.map((p) => `${p.name} ${p.start}–${p.end}`).join(', ')}
                </span>
              </Text>
              <Button variant="subtle" onClick={() => setOpen(set.id)}>
                Change
              </Button>
            </Group>
          ),
        )}
        {open === 'new' && <BellTimesForm known={null} close={() => setOpen(null)} />}
      </Stack>
    </Panel>
  );
}

const firstPeriod = { name: 'P1', start: '08:45', end: '09:30' };

function BellTimesForm({ known, close }: { known: BellTimes | null; close: () => void }) {
  const form = useForm<BellTimesInput>({
    initialValues: known
      ? { name: known.name, periods: known.periods }
      : { name: '', periods: [firstPeriod] },
    validate: zod4Resolver(BellTimesInput),
  });

  const { outcome, setOutcome, busy, remove, store, submit } = useSaving({
    form,
    known,
    close,
  });
  const { periods } = form.values;
  const add = () => {
    const last = periods.at(-1) ?? firstPeriod;
    const start = toMinutes(last.end) + 5;
    const end = start + toMinutes(last.end) - toMinutes(last.start);
    form.setFieldValue('periods', [
      ...periods,
      { name: `P${periods.length + 1}`, start: toClock(start), end: toClock(end) },
    ]);
  };
  return (
    <Paper withBorder p="md" component="form" onSubmit={submit as never}>
      <TextInput
        label="Name"
        autoFocus
        placeholder="Evenings"
        maxLength={80}
        w={260}
        mb="sm"
        {...form.getInputProps('name')}
      />
      <Faulty label="Periods" fault={form.errors.periods}>
        <Periods periods={periods} form={form} />
      </Faulty>
      {outcome && (
        <CollegeOutcomeView
          outcome={outcome}
          letters={{ path: `/bell-times/${known!.id}/letters`, body: form.values }}
          busy={busy}
          save={() => store(form.values)}
          back={() => setOutcome(null)}
        />
      )}
      {!outcome && <Buttons busy={busy} add={add} close={close} known={known} remove={remove} />}
    </Paper>
  );
}

/** What saving does: new ones are made; known ones are asked first what they change. */
function useSaving({
  form,
  known,
  close,
}: {
  form: UseFormReturnType<BellTimesInput>;
  known: BellTimes | null;
  close: () => void;
}) {
  const ask = useAsk();
  const [outcome, setOutcome] = useState<CollegeOutcome | null>(null);
  const failed = (error: Error) => {
    if (error instanceof ApiError) for (const f of error.fields) form.setFieldError(f.path, f.message);
  };
  const create = useChange(
    (b: BellTimesInput) => ask('/bell-times', 'POST', b),
    (_, b) => `${b.name} is saved.`,
  );
  const preview = useChange((b: BellTimesInput) =>
    ask<CollegeOutcome>(`/bell-times/${known!.id}/preview`, 'POST', b),
  );
  const save = useChange(
    (b: BellTimesInput) => ask(`/bell-times/${known!.id}`, 'PUT', b),
    (_, b) => `${b.name} is saved.`,
  );
  const remove = useChange(
    () => ask(`/bell-times/${known!.id}`, 'DELETE'),
    () => 'The bell times are gone.',
  );
  const store = (b: BellTimesInput) => save.mutate(b, { onSuccess: close, onError: failed });
  const submit = form.onSubmit((b) => {
    if (!known) return create.mutate(b, { onSuccess: close, onError: failed });
    preview.mutate(b, { onSuccess: (o) => (o.courses.length ? setOutcome(o) : store(b)), onError: failed });
  });
  const busy = create.isPending || preview.isPending || save.isPending;
  return { outcome, setOutcome, busy, remove, store, submit };
}

/** Each period with its start and end. */
function Periods({
  periods,
  form,
}: {
  periods: { name: string; start: string; end: string }[];
  form: UseFormReturnType<BellTimesInput>;
}) {
  return periods.map((p, i) => (
    <Group key={i} align="flex-start" gap="xs" mb={6}>
      <TextInput aria-label={`Name of period ${i + 1}`} w={90} {...form.getInputProps(`periods.${i}.name`)} />
      <TimePicker
        aria-label={`Start of ${p.name}`}
        hoursInputLabel={`Start of ${p.name}, hour`}
        minutesInputLabel={`Start of ${p.name}, minute`}
        w={105}
        {...form.getInputProps(`periods.${i}.start`)}
      />
      <TimePicker
        aria-label={`End of ${p.name}`}
        hoursInputLabel={`End of ${p.name}, hour`}
        minutesInputLabel={`End of ${p.name}, minute`}
        w={105}
        {...form.getInputProps(`periods.${i}.end`)}
      />
      <Button
        variant="subtle"
        onClick={() =>
          form.setFieldValue(
            'periods',
            periods.filter((_, n) => n !== i),
          )
        }
        aria-label={`Remove ${p.name}`}
      >
        Remove
      </Button>
    </Group>
  ));
}

interface ButtonsProps {
  busy: boolean;
  add: () => void;
  close: () => void;
  known: BellTimes | null;
  remove: UseMutationResult<unknown, Error, unknown>;
}

function Buttons(props: ButtonsProps) {
  const { busy, add, close, known, remove } = props;
  return (
    <Group mt="sm">
      <Button type="submit" loading={busy}>
        Save the bell times
      </Button>
      <Button variant="default" onClick={add}>
        Add a period
      </Button>
      <Button variant="default" onClick={close}>
        Back
      </Button>
      {known && (
        <Button
          variant="subtle"
          color="clay"
          loading={remove.isPending}
          onClick={() => remove.mutate(undefined, { onSuccess: close })}
        >
          Remove {known.name}
        </Button>
      )}
    </Group>
  );
}

import {
  Button,
  Group,
  Modal,
  NumberInput,
  Radio,
  SegmentedControl,
  Stack,
  Text,
  TextInput,
} from '@mantine/core';
import { DateInput, TimePicker } from '@mantine/dates';
import { useState } from 'react';
import type {
  CourseDetail,
  PlanEditDraft,
  PlanOutcome,
  Scope,
  SessionChange,
  SessionInfo,
} from '@nimble-bell/core/api';
import { clockWords, countWords, dateIn, instantWords } from '@nimble-bell/core/calendar';
import { useSavePlan } from './ConfirmPlan';
import { OutcomeView } from './OutcomeView';
import { Begin } from '../ui/Begin';
import { usePreview } from './usePreview';

interface Props {
  course: CourseDetail;
  session: SessionInfo;
  /** Where it was dragged to. */
  to?: { date: string; start: string };
  close: () => void;
}

type Do = SessionChange['do'];

interface Fields {
  do: Do;
  scope: Scope;
  date: string;
  start: string;
  minutes: number | '';
  title: string;
  reason: string;
}

/** A change of one session or many: what it does and who is told stands there before it is saved. */
export function ChangePanel({ course, session, to, close }: Props) {
  const { zone } = course.term;
  const held = session.state === 'held';
  const { fields, set, edit } = useFields({ held, session, to, zone });
  const { outcome, fault, settled } = usePreview(course.id, edit);
  const save = useSavePlan(outcome?.on);
  const told = outcome?.told.length ?? 0;
  const submit = (e: { preventDefault: () => void }) => {
    e.preventDefault();
    if (edit) save.mutate(edit, { onSuccess: close });
  };

  return (
    <Modal
      opened
      onClose={close}
      size="lg"
      title={<Begin>{`${session.seriesTitle}, ${instantWords(session.startsAt, zone)}`}</Begin>}
    >
      <form onSubmit={submit}>
        <Stack>
          {!held && (
            <SegmentedControl
              aria-label="What changes"
              data={actionsOf(session)}
              value={fields.do}
              onChange={(v) => set({ do: v as Do })}
            />
          )}
          <ChangeFields fields={fields} set={set} />
          {!held && <WhichSessions fields={fields} set={set} />}
          {outcome && <OutcomeView outcome={outcome} edit={edit} />}
          {fault && <Fault fault={fault} />}
          <Ending
            fields={fields}
            edit={edit}
            outcome={outcome}
            settled={settled}
            save={save}
            told={told}
            close={close}
          />
        </Stack>
      </form>
    </Modal>
  );
}

const SAVE: Record<Do, string> = {
  move: 'Move it',
  cancel: 'Cancel it',
  restore: 'Restore it',
  lengthen: 'Save the length',
  rename: 'Save the name',
  record: 'Save',
};

function actionsOf(session: SessionInfo): { value: Do; label: string }[] {
  return [
    { value: 'move', label: 'Move' },
    { value: 'lengthen', label: 'Length' },
    { value: 'rename', label: 'Name' },
    { value: 'record', label: session.record === false ? 'Record it' : 'Do not record' },
    session.state === 'cancelled'
      ? { value: 'restore', label: 'Restore' }
      : { value: 'cancel', label: 'Cancel' },
  ];
}

function changeOf(f: Fields, session: SessionInfo): SessionChange | null {
  switch (f.do) {
    case 'move':
      return f.date && f.start ? { do: 'move', date: f.date, start: f.start } : null;
    case 'lengthen':
      return f.minutes === '' ? null : { do: 'lengthen', minutes: f.minutes };
    case 'rename':
      return { do: 'rename', title: f.title.trim() || null };
    case 'record':
      return { do: 'record', automatic: session.record === false ? null : false };
    case 'cancel':
      return { do: 'cancel', reason: f.reason.trim() || null };
    case 'restore':
      return { do: 'restore' };
  }
}

function ChangeFields({ fields, set }: { fields: Fields; set: (more: Partial<Fields>) => void }) {
  if (fields.do === 'move')
    return (
      <Group>
        <DateInput
          label="Date"
          w={190}
          value={fields.date || null}
          onChange={(v) => set({ date: v ?? '' })}
        />
        <TimePicker
          label="Start"
          hoursInputLabel="Hour"
          minutesInputLabel="Minute"
          w={110}
          value={fields.start}
          onChange={(v) => set({ start: v })}
        />
      </Group>
    );
  if (fields.do === 'lengthen')
    return (
      <NumberInput
        label="Length"
        suffix=" min"
        min={1}
        max={720}
        w={160}
        value={fields.minutes}
        onChange={(v) => set({ minutes: typeof v === 'number' ? v : '' })}
      />
    );
  if (fields.do === 'cancel')
    return (
      <TextInput
        label="Why"
        description="Those who were to come are told it. Optional."
        maxLength={200}
        value={fields.reason}
        onChange={(e) => set({ reason: e.currentTarget.value })}
      />
    );
  if (fields.do === 'rename')
    return (
      <TextInput
        label="Name of the session"
        description="Empty, it goes by its series and number"
        maxLength={90}
        value={fields.title}
        onChange={(e) => set({ title: e.currentTarget.value })}
      />
    );
  return null;
}

function WhichSessions({ fields, set }: { fields: Fields; set: (more: Partial<Fields>) => void }) {
  return (
    <Radio.Group label="Which sessions" value={fields.scope} onChange={(v) => set({ scope: v as Scope })}>
      <Group mt={6}>
        <Radio value="one" label="Only this one" />
        <Radio value="later" label="This and later ones" />
        <Radio value="all" label="All that are ahead" />
      </Group>
    </Radio.Group>
  );
}

interface EndingProps {
  fields: Fields;
  edit: PlanEditDraft | null;
  outcome: PlanOutcome | null;
  settled: boolean;
  save: ReturnType<typeof useSavePlan>;
  told: number;
  close: () => void;
}

function Ending(props: EndingProps) {
  const { fields, edit, outcome, settled, save, told, close } = props;
  return (
    <Group>
      <Button
        type="submit"
        color={fields.do === 'cancel' ? 'clay' : undefined}
        disabled={!edit || !outcome || !settled}
        loading={save.isPending}
      >
        {told > 0 ? `${SAVE[fields.do]} and tell ${countWords(told, 'person', 'people')}` : SAVE[fields.do]}
      </Button>
      <Button variant="default" onClick={close}>
        {fields.do === 'cancel' ? 'Leave it as it is' : 'Back'}
      </Button>
    </Group>
  );
}

function Fault({ fault }: { fault: Error }) {
  const noChange = fault.message === 'This changes nothing.';
  return (
    <Text size="sm" c={noChange ? 'dimmed' : 'var(--clay)'} role="status">
      {fault.message}
    </Text>
  );
}

/** What is changed, and the edit that it is. */
function useFields({
  held,
  session,
  to,
  zone,
}: {
  held: boolean;
  session: SessionInfo;
  to: { date: string; start: string } | undefined;
  zone: string;
}) {
  const [fields, setFields] = useState<Fields>({
    do: held ? 'rename' : session.state === 'cancelled' && !to ? 'restore' : 'move',
    scope: 'one',
    date: to?.date ?? dateIn(zone, session.startsAt),
    start: to?.start ?? clockWords(session.startsAt, zone),
    minutes: session.minutes,
    title: session.title ?? '',
    reason: '',
  });
  const set = (more: Partial<Fields>) => setFields((f) => ({ ...f, ...more }));
  const change = changeOf(fields, session);
  const edit: PlanEditDraft | null = change && {
    edit: 'change-session',
    id: session.id,
    scope: held ? 'one' : fields.scope,
    change,
  };
  return { fields, set, edit };
}

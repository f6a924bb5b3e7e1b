import { Button, Group, Modal, NumberInput, Stack, Text, TextInput } from '@mantine/core';
import { DateInput, TimePicker } from '@mantine/dates';
import { useState } from 'react';
import type { CourseDetail, PlanEditDraft, SeriesInfo } from '@nimble-bell/core/api';
import { clockWords, countWords } from '@nimble-bell/core/calendar';
import { useSavePlan } from './ConfirmPlan';
import { OutcomeView } from './OutcomeView';
import { usePreview } from './usePreview';

/** A session beside what the pattern gives. */
export function AddSession(props: { course: CourseDetail; series: SeriesInfo; close: () => void }) {
  const { course, series, close } = props;
  const last = course.sessions.filter((s) => s.seriesId === series.id).at(-1);
  const [date, setDate] = useState<string | null>(null);
  const [start, setStart] = useState(last ? clockWords(last.startsAt, course.term.zone) : '18:30');
  const [minutes, setMinutes] = useState<number | ''>(last?.minutes ?? 60);
  const [title, setTitle] = useState('');
  const edit: PlanEditDraft | null =
    date && start && minutes !== ''
      ? { edit: 'add-session', seriesId: series.id, date, start, minutes, title: title.trim() || null }
      : null;
  const { outcome, fault } = usePreview(course.id, edit);
  const told = outcome?.told.length ?? 0;
  const save = useSavePlan();
  return (
    <Modal opened onClose={close} size="lg" title={`Add a session to ${series.title}`}>
      <Stack>
        <Group align="flex-end">
          <DateInput
            label="Date"
            valueFormat="ddd D MMM YYYY"
            placeholder="Choose a day"
            w={190}
            value={date}
            onChange={setDate}
            data-autofocus
          />
          <TimePicker
            label="Start"
            hoursInputLabel="Hour"
            minutesInputLabel="Minute"
            format="24h"
            w={110}
            value={start}
            onChange={setStart}
          />
          <NumberInput
            label="Length"
            suffix=" min"
            min={1}
            max={720}
            w={120}
            value={minutes}
            onChange={(v) => setMinutes(typeof v === 'number' ? v : '')}
          />
        </Group>
        <TextInput
          label="Name"
          description="Optional"
          maxLength={90}
          value={title}
          onChange={(e) => setTitle(e.currentTarget.value)}
        />
        {outcome && <OutcomeView outcome={outcome} edit={edit} />}
        {fault && (
          <Text size="sm" c="var(--clay)" role="status">
            {fault.message}
          </Text>
        )}
        <Group>
          <Button
            disabled={!edit || !outcome}
            loading={save.isPending}
            onClick={() => edit && save.mutate(edit, { onSuccess: close })}
          >
            {told ? `Add it and tell ${countWords(told, 'person', 'people')}` : 'Add it'}
          </Button>
          <Button variant="default" onClick={close}>
            Back
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

import { Group, Modal, NumberInput, Stack, TextInput } from '@mantine/core';
import { DateInput, TimePicker } from '@mantine/dates';
import { useState } from 'react';
import type { CourseDetail, PlanEditDraft, SeriesInfo } from '@nimble-bell/core/api';
import { clockWords } from '@nimble-bell/core/calendar';
import { SavePlan } from './ConfirmPlan';
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
  const preview = usePreview(course.id, edit);
  return (
    <Modal opened onClose={close} size="lg" title={`Add a session to ${series.title}`}>
      <Stack>
        <Group align="flex-end">
          <DateInput
            label="Date"
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
        <SavePlan edit={edit} preview={preview} action="Add it" close={close} done={close} />
      </Stack>
    </Modal>
  );
}

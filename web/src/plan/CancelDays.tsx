import { Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useState } from 'react';
import type { CourseDetail, PlanEditDraft } from '@nimble-bell/core/api';
import { countWords, dateIn, dateWords, termDays, toEpochDay, toLocalDate } from '@nimble-bell/core/calendar';
import { serverNow } from '../app/clock';
import { SavePlan } from './ConfirmPlan';
import { Begin } from '../ui/Begin';
import { usePreview } from './usePreview';

interface Week {
  from: string;
  to: string;
  label: string;
}

/** The weeks from today's on, by their teaching week. */
function weeksAhead(course: CourseDetail): Week[] {
  const days = termDays(course.term);
  const today = toEpochDay(dateIn(course.term.zone, serverNow()));
  return days.weeks
    .filter(({ monday }) => monday + 6 >= today && monday <= days.last)
    .map(({ monday, number, breakName }) => {
      const [from, to] = [Math.max(monday, days.first), Math.min(monday + 6, days.last)].map(toLocalDate);
      const name = number ? `Week ${number}` : (breakName ?? 'A week without a number');
      return { from: from!, to: to!, label: `${name}: ${dateWords(from!)} to ${dateWords(to!)}` };
    });
}

/** A week, or a stretch of days, without sessions: what falls out, why, and who is told stands there before it is saved. */
export function CancelDays(props: { course: CourseDetail; monday?: string; close: () => void }) {
  const { course, monday, close } = props;
  const weeks = weeksAhead(course);
  const first = weeks.find((w) => monday && w.from <= monday && monday <= w.to) ?? weeks[0];
  const [days, setDays] = useState({ from: first?.from ?? null, to: first?.to ?? null });
  const [reason, setReason] = useState('');
  const { from, to } = days;
  const edit: PlanEditDraft | null =
    from && to ? { edit: 'cancel-days', from, to, reason: reason.trim() || null } : null;
  const preview = usePreview(course.id, edit);
  const sessions = preview.outcome?.sessions.length ?? 0;
  return (
    <Modal opened onClose={close} size="lg" title={<Begin>Cancel a week, or some days</Begin>}>
      <Stack>
        <Select
          label="Week"
          placeholder="Days of your own"
          data={weeks.map((w) => ({ value: w.from, label: w.label }))}
          value={weeks.find((w) => w.from === from && w.to === to)?.from ?? null}
          onChange={(value) => {
            const week = weeks.find((w) => w.from === value);
            if (week) setDays({ from: week.from, to: week.to });
          }}
        />
        <Group grow>
          <DateInput
            label="From"
            value={from}
            onChange={(v) => setDays({ from: v, to: to && v && to < v ? v : to })}
          />
          <DateInput
            label="To"
            {...(from ? { minDate: from } : {})}
            value={to}
            onChange={(v) => setDays({ from, to: v })}
          />
        </Group>
        <TextInput
          label="Why"
          description="Those who were to come are told it. Optional."
          placeholder="The ferry does not run"
          maxLength={200}
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        <SavePlan
          edit={edit}
          preview={preview}
          action={sessions ? `Cancel ${countWords(sessions, 'session')}` : 'Cancel them'}
          close={close}
          done={close}
        />
      </Stack>
    </Modal>
  );
}

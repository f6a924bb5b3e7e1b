import { Alert, Button, Checkbox, FileButton, Group, Stack, Textarea, Title } from '@mantine/core';
import { useState } from 'react';
import type { PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import { countWords, patternWords, type TimetablePreview } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { bytesOf, useReadingOf } from '../app/reading';
import { FeedPanel } from '../ui/FeedPanel';
import { Panel } from '../ui/Panel';
import { RefusedLines } from '../ui/RefusedLines';
import { timetableFrom } from './calendarReader';

/** The plan as an open calendar, out and in. */
export function CalendarsPage() {
  const course = useThisCourse();
  return (
    <Stack>
      <Title order={1} size="h2">
        Calendars
      </Title>
      <FeedPanel
        course={course.id}
        about="Your calendar program shows this course and follows every change."
      />
      {course.role === 'teacher' && <TimetablePanel />}
    </Stack>
  );
}

/** Reads a timetable; each series it holds can be taken or left before anything is written. */
function TimetablePanel() {
  const course = useThisCourse();
  const ask = useAsk();
  const [preview, setPreview] = useState<TimetablePreview | null>(null);
  const [left, setLeft] = useState<number[]>([]);
  const reading = useReadingOf((given: string | Uint8Array) => timetableFrom(given, course.term));
  const read = (given: string | Uint8Array) => {
    setLeft([]);
    reading.mutate(given, { onSuccess: setPreview });
  };
  const add = useChange(
    (edit: PlanEditDraft) => ask<PlanOutcome>(`/courses/${course.id}/plan`, 'POST', edit),
    ({ words }) => `${words} as drafts.`,
  );
  const taken = preview?.series.filter((_, i) => !left.includes(i)) ?? [];
  const save = () =>
    add.mutate(
      { edit: 'add-series', series: taken.map(({ title, pattern }) => ({ title, pattern })) },
      { onSuccess: () => setPreview(null) },
    );
  return (
    <Panel
      title="Read a timetable"
      about="An .ics file with any recurrence, or a .csv with the columns Series, Date, Start and End. Nothing is written before you say so."
    >
      <Given read={read} reading={reading.isPending} />
      {preview?.fault && (
        <Alert color="clay" title="This cannot be read" role="alert">
          {preview.fault}
        </Alert>
      )}
      {preview?.series.map((s, i) => (
        <Checkbox
          key={`${s.title}${i}`}
          mb={6}
          checked={!left.includes(i)}
          onChange={(e) => setLeft(e.currentTarget.checked ? left.filter((n) => n !== i) : [...left, i])}
          label={`${s.title}: ${patternWords(s.pattern)}`}
          description={`${countWords(s.sessions, 'session')}${s.skipped ? `, ${countWords(s.skipped, 'date')} on days off left out` : ''}`}
          disabled={s.sessions === 0}
        />
      ))}
      <RefusedLines lines={preview?.bad ?? []} />
      {taken.length > 0 && (
        <Group mt="sm">
          <Button loading={add.isPending} onClick={save} disabled={taken.every((s) => s.sessions === 0)}>
            Add {countWords(taken.length, 'series', 'series')}
          </Button>
          <Button variant="default" onClick={() => setPreview(null)}>
            Leave it
          </Button>
        </Group>
      )}
    </Panel>
  );
}

/** A timetable comes as a file, or pasted. */
function Given({ read, reading }: { read: (given: string | Uint8Array) => void; reading: boolean }) {
  const [pasted, setPasted] = useState('');
  return (
    <Group align="flex-end" mb="sm">
      <FileButton
        onChange={(file) => file && void bytesOf(file).then(read)}
        accept=".ics,.csv,text/calendar,text/csv"
      >
        {(props) => (
          <Button variant="default" loading={reading} {...props}>
            Choose a file
          </Button>
        )}
      </FileButton>
      <Textarea
        aria-label="Or paste it here"
        placeholder="Or paste it here"
        autosize
        minRows={1}
        maxRows={6}
        w={420}
        value={pasted}
        onChange={(e) => setPasted(e.currentTarget.value)}
      />
      {pasted.trim() && (
        <Button variant="default" loading={reading} onClick={() => read(pasted)}>
          Read it
        </Button>
      )}
    </Group>
  );
}

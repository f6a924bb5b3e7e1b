import { Button, Checkbox, Group, Select, Stack, Text, TextInput, Title } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { CarryPreview, CourseDetail, PlanOutcome, TemplateInfo, TermInfo } from '@nimble-bell/core/api';
import { countWords, dateWords, dayWords, listWords, type Difference } from '@nimble-bell/core/calendar';
import { useAsk, type Ask } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import type { UseQueryResult } from '@tanstack/react-query';

/** What has been planned once, planned again. */
export function ReusePage() {
  const course = useThisCourse();
  if (course.role !== 'teacher') return <Empty>The teacher of the course decides what is used again.</Empty>;
  return (
    <Stack>
      <Title order={1} size="h2">
        Use it again
      </Title>
      <Templates />
      <CarryOver />
    </Stack>
  );
}

function Templates() {
  const course = useThisCourse();
  const ask = useAsk();
  const templates = useAsked<TemplateInfo[]>('/templates');
  const apply = useChange(
    (template: string) => ask<PlanOutcome>(`/courses/${course.id}/template/apply`, 'POST', { template }),
    ({ words, made }) => `${words}: ${countWords(made.length, 'draft')} added.`,
  );
  const remove = useChange(
    (t: TemplateInfo) => ask(`/templates/${t.id}`, 'DELETE'),
    (_, t) => `${t.name} is gone.`,
  );

  return (
    <Panel
      title="Templates"
      about="A template holds the series without their dates, the door, the limits and the recording plan."
    >
      <Keep ask={ask} course={course} templates={templates} />
      {templates.data?.length === 0 && <Empty>You have no template yet.</Empty>}
      {templates.data?.map((t) => (
        <Group key={t.id} justify="space-between" py={4}>
          <div>
            <Text fw={600}>{t.name}</Text>
            <Text size="sm" c="dimmed">
              {listWords(t.series) || 'no series'}
            </Text>
          </div>
          <Group gap="xs">
            <Button
              variant="default"
              size="compact-sm"
              loading={apply.isPending}
              onClick={() => apply.mutate(t.id)}
            >
              Lay it into this course
            </Button>
            <Button variant="subtle" color="clay" size="compact-sm" onClick={() => remove.mutate(t)}>
              Remove
            </Button>
          </Group>
        </Group>
      ))}
    </Panel>
  );
}

/** The course in another term, by teaching week and weekday, each difference settled before anything is made. */
function CarryOver() {
  const course = useThisCourse();
  const ask = useAsk();
  const navigate = useNavigate();
  const terms = useAsked<TermInfo[]>('/terms');
  const [term, setTerm] = useState<string | null>(null);
  const [left, setLeft] = useState<string[]>([]);
  const preview = useAsked<CarryPreview>(`/courses/${course.id}/carry?term=${term}`, {
    enabled: term !== null,
  });
  const others = terms.data?.filter((t) => t.id !== course.termId) ?? [];
  const keyOf = (series: string, d: Difference) => `${series}/${d.was?.date ?? d.date}`;
  const make = useCarrying({ preview, left, keyOf, ask, course, term });
  return (
    <Panel
      title="Carry it to another term"
      about="By teaching week and weekday, over that term's own days off."
    >
      {others.length === 0 && (
        <Empty>The college has no other term yet. Make one under “Term and bell times”.</Empty>
      )}
      {others.length > 0 && (
        <Select
          label="Term"
          placeholder="Choose a term"
          w={340}
          data={others.map((t) => ({ value: t.id, label: `${t.name}, from ${dayWords(t.firstDay)}` }))}
          value={term}
          onChange={(v) => {
            setTerm(v);
            setLeft([]);
          }}
        />
      )}
      {preview.data?.series.map((s) => (
        <SeriesLines key={s.id} s={s} keyOf={keyOf} left={left} setLeft={setLeft} />
      ))}
      {preview.data && (
        <Button
          mt="md"
          loading={make.isPending}
          onClick={() =>
            make.mutate(undefined, { onSuccess: ({ id }) => void navigate(`/course/${id}/plan`) })
          }
        >
          Carry {course.code} over
        </Button>
      )}
    </Panel>
  );
}

function DifferenceLine(props: { difference: Difference; taken: boolean; take: (on: boolean) => void }) {
  const { difference: d, taken, take } = props;
  if (d.outcome === 'no place')
    return (
      <Text size="sm" mt={4} c="var(--clay)">
        No place for the session of {dateWords(d.was!.date)}: {d.why}
      </Text>
    );
  const label =
    d.outcome === 'moved'
      ? `The session of ${dateWords(d.was!.date)} takes place on ${dateWords(d.date!)} instead`
      : `A session more on ${dateWords(d.date!)}`;
  return (
    <Checkbox
      mt={6}
      size="sm"
      label={label}
      description={d.why}
      checked={taken}
      onChange={(e) => take(e.currentTarget.checked)}
    />
  );
}

function Keep({
  ask,
  course,
  templates,
}: {
  ask: Ask;
  course: CourseDetail;
  templates: UseQueryResult<TemplateInfo[]>;
}) {
  const [name, setName] = useState('');
  const keep = useChange(
    () => ask(`/courses/${course.id}/template`, 'POST', { name }),
    () => `Kept as ${name}.`,
  );
  const known = templates.data?.some((t) => t.name === name.trim());
  return (
    <Group align="flex-end" mb="md">
      <TextInput
        label="Keep this course as"
        placeholder="Evening lectures"
        maxLength={80}
        w={280}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button
        disabled={!name.trim() || course.series.length === 0}
        loading={keep.isPending}
        onClick={() => keep.mutate(undefined, { onSuccess: () => setName('') })}
      >
        {known ? 'Replace the template' : 'Keep as a template'}
      </Button>
    </Group>
  );
}

interface SeriesLinesProps {
  s: { id: string; title: string; differences: Difference[] };
  keyOf: (series: string, d: Difference) => string;
  left: string[];
  setLeft: (value: string[]) => void;
}

/** One series in the other term: what fits, and what is to be settled. */
function SeriesLines(props: SeriesLinesProps) {
  const { s, keyOf, left, setLeft } = props;
  return (
    <div>
      <Text fw={600} mt="md">
        {s.title}
      </Text>
      <Text size="sm" c="dimmed">
        {s.differences.length === 0
          ? 'A room without dates: taken over as it is.'
          : `${countWords(s.differences.filter((d) => d.outcome === 'fits').length, 'session')} fit${s.differences.some((d) => d.outcome !== 'fits') ? '; to settle:' : '.'}`}
      </Text>
      {s.differences
        .filter((d) => d.outcome !== 'fits')
        .map((d) => (
          <DifferenceLine
            key={keyOf(s.id, d)}
            difference={d}
            taken={!left.includes(keyOf(s.id, d))}
            take={(on) => setLeft(on ? left.filter((k) => k !== keyOf(s.id, d)) : [...left, keyOf(s.id, d)])}
          />
        ))}
    </div>
  );
}

function useCarrying({
  preview,
  left,
  keyOf,
  ask,
  course,
  term,
}: {
  preview: UseQueryResult<CarryPreview>;
  left: string[];
  keyOf: (series: string, d: Difference) => string;
  ask: Ask;
  course: CourseDetail;
  term: string | null;
}) {
  return useChange(
    () => {
      const settled = preview.data!.series.flatMap((s) =>
        s.differences
          .filter((d) => d.outcome === 'moved' || d.outcome === 'extra')
          .map((d) => ({
            series: s.id,
            date: (d.was?.date ?? d.date)!,
            take: !left.includes(keyOf(s.id, d)),
          })),
      );
      return ask<{ id: string }>(`/courses/${course.id}/carry`, 'POST', { term, settled });
    },
    () => `${course.code} stands in the new term, as a draft.`,
  );
}

import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { useLocation } from 'react-router';
import type { SeriesInfo } from '@nimble-bell/core/api';
import { useThisCourse } from '../app/course';
import { SeriesEditor } from './SeriesEditor';
import { SeriesSummary } from './SeriesSummary';

/** The series of a course: what is in force, and the editor of one. */
export function PlanPage() {
  const course = useThisCourse();
  const { key } = useLocation();
  const [editing, setEditing] = useState<SeriesInfo | 'new' | null>(null);
  const mayPlan = course.role === 'teacher';
  const show = editing ?? (course.series.length === 0 && mayPlan ? 'new' : null);
  return (
    <Stack key={key}>
      <Group justify="space-between">
        <Title order={1} size="h2">
          {show ? (show === 'new' ? 'A new series' : `Change ${show.title}`) : 'The plan'}
        </Title>
        {!show && mayPlan && <Button onClick={() => setEditing('new')}>Add a series</Button>}
      </Group>
      {show ? (
        <SeriesEditor
          key={show === 'new' ? 'new' : show.id}
          course={course}
          series={show === 'new' ? null : show}
          done={() => setEditing(null)}
        />
      ) : course.series.length === 0 ? (
        <Text c="dimmed">Nothing is planned yet. The teacher of the course plans its sessions here.</Text>
      ) : (
        course.series.map((s) => (
          <SeriesSummary
            key={s.id}
            course={course}
            series={s}
            change={mayPlan ? () => setEditing(s) : undefined}
          />
        ))
      )}
    </Stack>
  );
}

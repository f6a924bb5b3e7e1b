import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { useLocation } from 'react-router';
import type { SeriesInfo } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { Findings } from '../ui/Findings';
import { ConfirmPlan, useSavePlan } from './ConfirmPlan';
import { CancelDays } from './CancelDays';
import { CourseSwitches } from './CourseSwitches';
import { KeepingPanel } from './KeepingPanel';
import { SeriesEditor } from './SeriesEditor';
import { SeriesSummary } from './SeriesSummary';

/** The series of a course: what is in force, and the editor of one. */
export function PlanPage() {
  const course = useThisCourse();
  const { key } = useLocation();
  const [editing, setEditing] = useState<{ key: string; what: SeriesInfo | 'new' } | null>(null);
  const [off, setOff] = useState(false);
  const mayPlan = course.role === 'teacher';
  // Coming here anew shows the plan: what was being typed is kept.
  const chosen = editing?.key === key ? editing.what : null;
  const show = chosen ?? (course.series.length === 0 && mayPlan ? 'new' : null);
  const edit = (what: SeriesInfo | 'new') => setEditing({ key, what });
  if (show)
    return (
      <Stack>
        <Title order={1} size="h2">
          {show === 'new' ? 'A new series' : `Change ${show.title}`}
        </Title>
        <SeriesEditor
          key={show === 'new' ? 'new' : show.id}
          course={course}
          series={show === 'new' ? null : show}
          done={() => setEditing(null)}
        />
      </Stack>
    );
  const general = course.findings.filter((f) => f.stage === 'plan' && !f.series);
  return (
    <Stack>
      <Group justify="space-between">
        <Title order={1} size="h2">
          The plan
        </Title>
        {mayPlan && (
          <Group>
            <PublishAll />
            {course.sessions.some((s) => s.state === 'planned' || s.state === 'moved') && (
              <Button variant="default" onClick={() => setOff(true)}>
                Cancel a week
              </Button>
            )}
            <Button onClick={() => edit('new')}>Add a series</Button>
          </Group>
        )}
      </Group>
      <Findings course={course} findings={general} />
      {course.series.length === 0 ? (
        <Text c="dimmed">Nothing is planned yet. The teacher of the course plans its sessions here.</Text>
      ) : (
        course.series.map((s) => (
          <SeriesSummary key={s.id} course={course} series={s} change={mayPlan ? () => edit(s) : undefined} />
        ))
      )}
      {off && <CancelDays course={course} close={() => setOff(false)} />}
      {mayPlan && course.series.length > 0 && <CourseSwitches />}
      {mayPlan && <KeepingPanel />}
    </Stack>
  );
}

/** Drafts become what students see. Where some are invited already, what they get is shown first. */
function PublishAll() {
  const course = useThisCourse();
  const [asking, setAsking] = useState(false);
  const publish = useSavePlan();
  const drafts = course.series.filter((s) => s.publishedAt === null);
  const edit = { edit: 'publish' as const, ids: drafts.map((s) => s.id) };
  if (!drafts.length) return null;
  const stops = course.findings.filter(
    (f) => f.level === 'stops' && f.stage === 'plan' && (!f.series || edit.ids.includes(f.series)),
  );
  const action = `Publish ${drafts.length === 1 ? drafts[0]!.title : countWords(drafts.length, 'draft')}`;
  return (
    <>
      <Button
        variant="default"
        loading={publish.isPending}
        onClick={() => (course.counts.invited || stops.length ? setAsking(true) : publish.mutate(edit))}
      >
        {action}
      </Button>
      <ConfirmPlan
        edit={asking ? edit : null}
        title={action}
        action={stops.length ? 'Publish all the same' : 'Publish'}
        close={() => setAsking(false)}
        stops={stops}
      />
    </>
  );
}

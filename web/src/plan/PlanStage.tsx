import { Button, Group, Paper, Text } from '@mantine/core';
import { Outlet } from 'react-router';
import type { PlanChangeInfo, PlanOutcome } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Parts } from '../ui/Parts';

const PARTS: [string, string][] = [
  ['', 'Series'],
  ['week', 'Week'],
  ['zones', 'Zones'],
  ['groups', 'Groups'],
  ['calendars', 'Calendars'],
  ['reuse', 'Reuse'],
  ['history', 'History'],
];
const FRESH_MS = 15 * 60_000;

/** The stage of planning: its parts, and the latest change with its way back. */
export function PlanStage() {
  const course = useThisCourse();
  return (
    <>
      <Parts
        label="Parts of the plan"
        parts={PARTS}
        elsewhere={[`/college?term=${course.termId}`, 'Term and bell times']}
      />
      {course.role === 'teacher' && <LatestChange />}
      <Outlet />
    </>
  );
}

/** The change just made, undone by one press. */
function LatestChange() {
  const course = useThisCourse();
  const now = useNow(20_000);
  const history = useAsked<PlanChangeInfo[]>(`/courses/${course.id}/plan/history`);
  const latest = history.data?.find((c) => c.undoable);
  const undo = useUndo();
  if (!latest || now - latest.at > FRESH_MS) return null;
  return (
    <Paper withBorder px="md" py={6} mb="md" role="status">
      <Group justify="space-between" wrap="nowrap">
        <Text size="sm">
          {latest.words}
          {latest.told > 0 && `; ${countWords(latest.told, 'person', 'people')} told`}.
        </Text>
        <Button
          variant="default"
          size="compact-sm"
          loading={undo.isPending}
          onClick={() => undo.mutate(latest.id)}
        >
          Undo
        </Button>
      </Group>
    </Paper>
  );
}

export function useUndo() {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (change: string) => ask<PlanOutcome>(`/courses/${course.id}/plan/undo`, 'POST', { change }),
    ({ words, told }) =>
      `${words}.${told.count ? ` ${countWords(told.count, 'person', 'people')} told.` : ''}`,
  );
}

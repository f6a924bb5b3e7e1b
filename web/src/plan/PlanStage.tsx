import { Outlet } from 'react-router';
import type { PlanChangeInfo, PlanOutcome } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { LatestChange } from '../ui/LatestChange';
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
      {course.role === 'teacher' && <LatestPlanChange />}
      <Outlet />
    </>
  );
}

/** The change just made to the plan, undone by one press. */
function LatestPlanChange() {
  const course = useThisCourse();
  const history = useAsked<PlanChangeInfo[]>(`/courses/${course.id}/plan/history`);
  const latest = history.data?.find((c) => c.undoable);
  const undo = useUndo();
  if (!latest) return null;
  return (
    <LatestChange
      at={latest.at}
      words={`${latest.words}${newsWords(latest)}.`}
      undo={() => undo.mutate(latest.id)}
      undoing={undo.isPending}
      mb="md"
    />
  );
}

/** Who has the news of a change, and who will. */
export function newsWords({ told, waiting }: { told: number; waiting: number }): string {
  const some = (count: number, what: string) =>
    count ? `, ${countWords(count, 'person', 'people')} ${what}` : '';
  return some(told, 'told') + some(waiting, 'told shortly');
}

export function useUndo() {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (change: string) => ask<PlanOutcome>(`/courses/${course.id}/plan/undo`, 'POST', { change }),
    ({ words, told }) =>
      `${words}.${told.length ? ` ${countWords(told.length, 'person', 'people')} will be told.` : ''}`,
  );
}

import { Outlet } from 'react-router';
import { useThisCourse } from '../app/course';
import { LatestChange } from '../ui/LatestChange';
import { Parts } from '../ui/Parts';
import { useRules, useUndoRules } from './useRules';

const PARTS: [string, string][] = [
  ['', 'Course'],
  ['door', 'Door'],
  ['term', 'Term'],
  ['run-sheets', 'Run sheets'],
  ['exceptions', 'Exceptions'],
  ['sheets', 'Rule sheets'],
  ['proof', 'Proof'],
];

/** The stage of limits: its parts, and the latest change with its way back. */
export function LimitsStage() {
  const course = useThisCourse();
  return (
    <>
      <Parts label="Parts of the limits" parts={PARTS} />
      {course.role === 'teacher' && <LatestRules />}
      <Outlet />
    </>
  );
}

function LatestRules() {
  const latest = useRules().data?.latest;
  const undo = useUndoRules();
  if (!latest) return null;
  return (
    <LatestChange
      at={latest.at}
      words={`${latest.words}.`}
      undo={() => undo.mutate(latest.id)}
      undoing={undo.isPending}
      mb="md"
    />
  );
}

import { Outlet } from 'react-router';
import { useThisCourse } from '../app/course';
import { Parts } from '../ui/Parts';
import { LatestRules } from './LatestRules';

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

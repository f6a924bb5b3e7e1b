import { Outlet } from 'react-router';
import { Parts } from '../ui/Parts';

const PARTS = [
  ['', 'The next class'],
  ['questions', 'Questions'],
] as const;

/** The stage of teaching: the way into class, and what is prepared for it. */
export function TeachStage() {
  return (
    <>
      <Parts label="Parts of teaching" parts={PARTS} />
      <Outlet />
    </>
  );
}

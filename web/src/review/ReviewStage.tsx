import { Outlet } from 'react-router';
import { Parts } from '../ui/Parts';

const PARTS: [string, string][] = [
  ['', 'Sessions'],
  ['roll-book', 'Roll book'],
  ['taking-part', 'Taking part'],
  ['thoughts', 'What the class thought'],
];

/** The stage of what is behind. */
export function ReviewStage() {
  return (
    <>
      <Parts label="Parts of the review" parts={PARTS} />
      <Outlet />
    </>
  );
}

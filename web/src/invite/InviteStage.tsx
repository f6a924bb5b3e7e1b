import { Outlet } from 'react-router';
import { Parts } from '../ui/Parts';

const PARTS = [
  ['', 'Invitations'],
  ['reminders', 'Reminders'],
  ['notices', 'Notices'],
  ['files', 'Files and links'],
  ['letters', 'Letters'],
] as const;

/** The stage of everything that is said to the class. */
export function InviteStage() {
  return (
    <>
      <Parts label="Parts of inviting" parts={PARTS} />
      <Outlet />
    </>
  );
}

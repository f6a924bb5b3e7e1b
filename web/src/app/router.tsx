import { createBrowserRouter, Navigate, Outlet, useParams } from 'react-router';
import { ClassPage } from '../class/ClassPage';
import { InvitePage } from '../invite/InvitePage';
import { MailboxPage } from '../invite/MailboxPage';
import { LimitsPage } from '../limits/LimitsPage';
import { PlanPage } from '../plan/PlanPage';
import { RecordingPage } from '../recording/RecordingPage';
import { ReviewPage } from '../review/ReviewPage';
import { SessionPage } from '../review/SessionPage';
import { RoomPage } from '../room/RoomPage';
import { StudentPage } from '../student/StudentPage';
import { TeachPage } from '../teach/TeachPage';
import { WatchPage } from '../watch/WatchPage';
import { LinkContext } from './api';
import { CoursesPage } from './CoursesPage';
import { EntrancePage } from './EntrancePage';
import { Lost } from './Lost';
import { PlanningFrame } from './PlanningFrame';

/** Everything below speaks with the link in the address. */
function ByLink() {
  const { code } = useParams();
  return (
    <LinkContext value={code ?? null}>
      <Outlet />
    </LinkContext>
  );
}

export const router = createBrowserRouter([
  { path: '/', element: <EntrancePage />, errorElement: <Lost /> },
  { path: '/courses', element: <CoursesPage />, errorElement: <Lost /> },
  {
    path: '/course/:course',
    element: <PlanningFrame />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <Navigate to="plan" replace /> },
      { path: 'plan', element: <PlanPage /> },
      { path: 'class', element: <ClassPage /> },
      { path: 'invite', element: <InvitePage /> },
      { path: 'limits', element: <LimitsPage /> },
      { path: 'recording', element: <RecordingPage /> },
      { path: 'teach', element: <TeachPage /> },
      { path: 'review', element: <ReviewPage /> },
      { path: 'session/:session', element: <SessionPage /> },
      { path: 'watch/:recording', element: <WatchPage /> },
    ],
  },
  { path: '/room/:session', element: <RoomPage />, errorElement: <Lost /> },
  {
    path: '/in/:code',
    element: <ByLink />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <StudentPage /> },
      { path: 'room/:session', element: <RoomPage /> },
      { path: 'watch/:recording', element: <WatchPage /> },
    ],
  },
  { path: '/mailbox', element: <MailboxPage />, errorElement: <Lost /> },
  { path: '*', element: <Lost /> },
]);

import { createBrowserRouter, Navigate, Outlet, useParams } from 'react-router';
import { ClassPage } from '../class/ClassPage';
import { CollegePage } from '../college/CollegePage';
import { FilesPage } from '../invite/FilesPage';
import { InvitePage } from '../invite/InvitePage';
import { InviteStage } from '../invite/InviteStage';
import { LettersPage } from '../invite/LettersPage';
import { MailboxPage } from '../invite/MailboxPage';
import { NoticesPage } from '../invite/NoticesPage';
import { RemindersPage } from '../invite/RemindersPage';
import { LimitsPage } from '../limits/LimitsPage';
import { CalendarsPage } from '../plan/CalendarsPage';
import { GroupsPage } from '../plan/GroupsPage';
import { HistoryPage } from '../plan/HistoryPage';
import { MakeUpPage } from '../plan/MakeUpPage';
import { PlanPage } from '../plan/PlanPage';
import { PlanStage } from '../plan/PlanStage';
import { ReusePage } from '../plan/ReusePage';
import { WeekPage } from '../plan/WeekPage';
import { ZonesPage } from '../plan/ZonesPage';
import { RecordingPage } from '../recording/RecordingPage';
import { ReviewPage } from '../review/ReviewPage';
import { SessionPage } from '../review/SessionPage';
import { RoomPage } from '../room/RoomPage';
import { StudentPage } from '../student/StudentPage';
import { LettersOff } from '../student/LettersOff';
import { ListedPage } from '../student/ListedPage';
import { VisitPage } from '../student/VisitPage';
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
  { path: '/college', element: <CollegePage />, errorElement: <Lost /> },
  {
    path: '/course/:course',
    element: <PlanningFrame />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <Navigate to="plan" replace /> },
      {
        path: 'plan',
        element: <PlanStage />,
        children: [
          { index: true, element: <PlanPage /> },
          { path: 'week', element: <WeekPage /> },
          { path: 'zones', element: <ZonesPage /> },
          { path: 'groups', element: <GroupsPage /> },
          { path: 'calendars', element: <CalendarsPage /> },
          { path: 'reuse', element: <ReusePage /> },
          { path: 'history', element: <HistoryPage /> },
          { path: 'make-up/:session', element: <MakeUpPage /> },
        ],
      },
      { path: 'class', element: <ClassPage /> },
      {
        path: 'invite',
        element: <InviteStage />,
        children: [
          { index: true, element: <InvitePage /> },
          { path: 'reminders', element: <RemindersPage /> },
          { path: 'notices', element: <NoticesPage /> },
          { path: 'files', element: <FilesPage /> },
          { path: 'letters', element: <LettersPage /> },
        ],
      },
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
      { path: 'letters', element: <LettersOff /> },
      { path: 'room/:session', element: <RoomPage /> },
      { path: 'watch/:recording', element: <WatchPage /> },
    ],
  },
  { path: '/class/:code', element: <VisitPage />, errorElement: <Lost /> },
  { path: '/listed', element: <ListedPage />, errorElement: <Lost /> },
  { path: '/mailbox', element: <MailboxPage />, errorElement: <Lost /> },
  { path: '*', element: <Lost /> },
]);

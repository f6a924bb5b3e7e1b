import type { ComponentType } from 'react';

type Load = () => Promise<ComponentType>;

/** An address, the page that stands there, and what stands under it. A page's code is fetched when it is first asked for. */
export interface Place {
  path?: string;
  /** What the page is called in the window's title; it may be that of the place around it. */
  title?: string;
  page?: Load;
  children?: Place[];
  /** Leads on to the first of its children. */
  to?: string;
}

const frame: Load = () => import('./PlanningFrame').then((m) => m.PlanningFrame);
const room: Load = () => import('../room/RoomPage').then((m) => m.RoomPage);
const ways: Load = () => import('../ways/WaysPage').then((m) => m.WaysPage);
const watch: Load = () => import('../watch/WatchPage').then((m) => m.WatchPage);

const plan: Place[] = [
  { title: 'Plan', page: () => import('../plan/PlanPage').then((m) => m.PlanPage) },
  { path: 'week', title: 'Week', page: () => import('../plan/WeekPage').then((m) => m.WeekPage) },
  { path: 'zones', title: 'Zones', page: () => import('../plan/ZonesPage').then((m) => m.ZonesPage) },
  { path: 'groups', title: 'Groups', page: () => import('../plan/GroupsPage').then((m) => m.GroupsPage) },
  {
    path: 'calendars',
    title: 'Calendars',
    page: () => import('../plan/CalendarsPage').then((m) => m.CalendarsPage),
  },
  { path: 'reuse', title: 'Reuse', page: () => import('../plan/ReusePage').then((m) => m.ReusePage) },
  {
    path: 'history',
    title: 'History of the plan',
    page: () => import('../plan/HistoryPage').then((m) => m.HistoryPage),
  },
  {
    path: 'make-up/:session',
    title: 'Make up',
    page: () => import('../plan/MakeUpPage').then((m) => m.MakeUpPage),
  },
];

const review: Place[] = [
  { title: 'Review', page: () => import('../review/ReviewPage').then((m) => m.ReviewPage) },
  {
    path: 'roll-book',
    title: 'Roll book',
    page: () => import('../review/RollBookPage').then((m) => m.RollBookPage),
  },
  {
    path: 'taking-part',
    title: 'Taking part',
    page: () => import('../review/PartPage').then((m) => m.PartPage),
  },
  {
    path: 'thoughts',
    title: 'What the class thought',
    page: () => import('../review/ThoughtsPage').then((m) => m.ThoughtsPage),
  },
];

const invite: Place[] = [
  { title: 'Invite', page: () => import('../invite/InvitePage').then((m) => m.InvitePage) },
  {
    path: 'reminders',
    title: 'Reminders',
    page: () => import('../invite/RemindersPage').then((m) => m.RemindersPage),
  },
  {
    path: 'notices',
    title: 'Notices',
    page: () => import('../invite/NoticesPage').then((m) => m.NoticesPage),
  },
  {
    path: 'files',
    title: 'Files and links',
    page: () => import('../invite/FilesPage').then((m) => m.FilesPage),
  },
  {
    path: 'letters',
    title: 'Letters',
    page: () => import('../invite/LettersPage').then((m) => m.LettersPage),
  },
];

const limits: Place[] = [
  { title: 'Limits', page: () => import('../limits/LimitsPage').then((m) => m.LimitsPage) },
  { path: 'door', title: 'The door', page: () => import('../limits/DoorPage').then((m) => m.DoorPage) },
  {
    path: 'term',
    title: 'Limits of the term',
    page: () => import('../limits/TermPage').then((m) => m.TermPage),
  },
  {
    path: 'run-sheets',
    title: 'Run sheets',
    page: () => import('../limits/RunSheetsPage').then((m) => m.RunSheetsPage),
  },
  {
    path: 'exceptions',
    title: 'Exceptions',
    page: () => import('../limits/ExceptionsPage').then((m) => m.ExceptionsPage),
  },
  {
    path: 'sheets',
    title: 'Rule sheets',
    page: () => import('../limits/SheetsPage').then((m) => m.SheetsPage),
  },
  {
    path: 'proof',
    title: 'Proof of the limits',
    page: () => import('../limits/ProofPage').then((m) => m.ProofPage),
  },
];

const teach: Place[] = [
  { title: 'Teach', page: () => import('../teach/TeachPage').then((m) => m.TeachPage) },
  {
    path: 'questions',
    title: 'Questions',
    page: () => import('../questions/QuestionsPage').then((m) => m.QuestionsPage),
  },
];

const stages: Place[] = [
  { to: 'plan' },
  {
    path: 'plan',
    title: 'Plan',
    page: () => import('../plan/PlanStage').then((m) => m.PlanStage),
    children: plan,
  },
  { path: 'class', title: 'Class list', page: () => import('../class/ClassPage').then((m) => m.ClassPage) },
  {
    path: 'invite',
    title: 'Invite',
    page: () => import('../invite/InviteStage').then((m) => m.InviteStage),
    children: invite,
  },
  {
    path: 'limits',
    title: 'Limits',
    page: () => import('../limits/LimitsStage').then((m) => m.LimitsStage),
    children: limits,
  },
  {
    path: 'recording',
    title: 'Recording',
    page: () => import('../recording/RecordingPage').then((m) => m.RecordingPage),
  },
  {
    path: 'teach',
    title: 'Teach',
    page: () => import('../teach/TeachStage').then((m) => m.TeachStage),
    children: teach,
  },
  {
    path: 'review',
    title: 'Review',
    page: () => import('../review/ReviewStage').then((m) => m.ReviewStage),
    children: review,
  },
  {
    path: 'session/:session',
    title: 'Session',
    page: () => import('../review/SessionPage').then((m) => m.SessionPage),
  },
  { path: 'watch/:recording', title: 'Watch', page: watch },
  {
    path: 'watch/:recording/cut',
    title: 'Cut',
    page: () => import('../watch/cut/CutPage').then((m) => m.CutPage),
  },
];

/** What a personal link opens: everything below speaks with the link in the address. */
const byLink: Place[] = [
  { title: 'Your course', page: () => import('../student/StudentPage').then((m) => m.StudentPage) },
  { path: 'ways', title: 'Your ways', page: ways },
  {
    path: 'part',
    title: 'How you take part',
    page: () => import('../student/PartPage').then((m) => m.PartPage),
  },
  {
    path: 'letters',
    title: 'Your letters',
    page: () => import('../student/LettersOff').then((m) => m.LettersOff),
  },
  {
    path: 'written/:session',
    title: 'Written around a class',
    page: () => import('../writing/WritingPage').then((m) => m.WritingPage),
  },
  { path: 'room/:session', title: 'In class', page: room },
  { path: 'watch/:recording', title: 'Watch', page: watch },
];

/** The whole of the addresses. */
export const PLACES: Place[] = [
  { path: '/', title: 'Entrance', page: () => import('./EntrancePage').then((m) => m.EntrancePage) },
  { path: '/ways', title: 'Your ways', page: ways },
  { path: '/start', title: 'Start', page: () => import('./StartPage').then((m) => m.StartPage) },
  { path: '/courses', title: 'Your courses', page: () => import('./CoursesPage').then((m) => m.CoursesPage) },
  {
    path: '/college',
    title: 'Term and bell times',
    page: () => import('../college/CollegePage').then((m) => m.CollegePage),
  },
  {
    path: '/college/rules',
    title: 'What holds in every course',
    page: () => import('../college/CollegeRulesPage').then((m) => m.CollegeRulesPage),
  },
  { path: '/course/:course', page: frame, children: stages },
  {
    path: '/as/:session/:member',
    title: 'As a student has it',
    page: () => import('../limits/SeenAsPage').then((m) => m.SeenAsPage),
  },
  { path: '/room/:session', title: 'In class', page: room },
  { path: '/in/:code', children: byLink },
  {
    path: '/class/:code',
    title: 'Visit a class',
    page: () => import('../student/VisitPage').then((m) => m.VisitPage),
  },
  {
    path: '/shared/:code',
    title: 'A recording',
    page: () => import('../watch/SharedPage').then((m) => m.SharedPage),
  },
  {
    path: '/listed',
    title: 'Listed sessions',
    page: () => import('../student/ListedPage').then((m) => m.ListedPage),
  },
  {
    path: '/telephone',
    title: 'A telephone',
    page: () => import('../telephone/TelephonePage').then((m) => m.TelephonePage),
  },
  { path: '/mailbox', title: 'Post', page: () => import('../invite/MailboxPage').then((m) => m.MailboxPage) },
];

const parts = (path: string) => path.split('/').filter(Boolean);

/** The places that an address goes through, the outermost first; none where it leads nowhere. */
export function placesAt(address: string, places: readonly Place[] = PLACES): Place[] {
  const asked = parts(address);
  for (const place of places) {
    const own = parts(place.path ?? '');
    const fits = own.every((part, i) => (part.startsWith(':') ? asked[i] !== undefined : part === asked[i]));
    if (!fits) continue;
    const rest = asked.slice(own.length);
    if (place.children) {
      const below = placesAt(rest.join('/'), place.children);
      if (below.length) return [place, ...below];
    }
    if (rest.length === 0) return [place];
  }
  return [];
}

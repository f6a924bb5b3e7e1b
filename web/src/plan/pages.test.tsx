import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type {
  Term,
  CourseDetail,
  Finding,
  PlanChangeInfo,
  PlanOutcome,
  SeriesInfo,
  SessionInfo,
} from '@nimble-bell/core/api';
import { readTimetable, sessionsOf, toInstant, toEpochDay } from '@nimble-bell/core/calendar';
import type { ReactNode } from 'react';
import { CourseContext } from '../app/course';
import { answerRequests, asked } from '../testing/answers';
import { course, member, roomInfo, show } from '../testing/render';
import { Findings, StageFindings } from '../ui/Findings';
import { CalendarsPage } from './CalendarsPage';
import { ChangePanel } from './ChangePanel';
import { GroupsPage } from './GroupsPage';
import { HistoryPage } from './HistoryPage';
import { MakeUpPage } from './MakeUpPage';
import { PlanPage } from './PlanPage';
import { ReusePage } from './ReusePage';
import { placeAfter, WeekPage } from './WeekPage';
import { ZonesPage } from './ZonesPage';

jest.setTimeout(30_000);
const TERM = course().term;
const lecture: SeriesInfo = {
  id: 's',
  title: 'Lecture',
  kind: 'class',
  group: null,
  expected: null,
  leads: [],
  listed: false,
  publishedAt: 1,
  pattern: {
    kind: 'weekly',
    every: 1,
    lingerMinutes: 0,
    ends: { by: 'term' },
    days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
  },
};
const sessions: SessionInfo[] = sessionsOf(TERM, lecture.pattern!).sessions.map((s) => ({
  ...roomInfo({ member: 'm', role: 'teacher' }).session,
  ...s,
  id: s.date,
  seriesId: 's',
  lingerMinutes: 0,
  state: 'planned',
}));
const outcome = (more: Partial<PlanOutcome> = {}): PlanOutcome => ({
  changeId: null,
  on: '',
  words: 'Done',
  sessions: [],
  told: [],
  clashes: [],
  made: [],
  ...more,
});
const finding = (more: Partial<Finding>): Finding => ({
  id: 'f',
  rule: 'clash',
  level: 'warns',
  stage: 'plan',
  text: 'Something is off.',
  ...more,
});
const inCourse = (page: ReactNode, more: Partial<CourseDetail> = {}) =>
  show(<CourseContext value={course({ series: [lecture], sessions, ...more })}>{page}</CourseContext>);
const sent = (method: string, path: string) =>
  asked.filter((a) => a.method === method && a.path === `/api${path}`).map((a) => a.body);

beforeEach(() => answerRequests({ '/api/drafts': { draft: null } }));

test('a draft says so and is published by one press; a published plan has nothing to publish', async () => {
  answerRequests({ 'POST /api/courses/course/plan': outcome({ words: 'Lecture published' }) });
  inCourse(<PlanPage />, { series: [{ ...lecture, publishedAt: null }] });
  expect(screen.getByText('draft')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Publish Lecture' }));
  await waitFor(() =>
    expect(sent('POST', '/courses/course/plan')).toEqual([{ edit: 'publish', ids: ['s'] }]),
  );
});

test('a series is removed after a plain question, and never one that was taught', () => {
  const { unmount } = inCourse(<PlanPage />);
  fireEvent.click(screen.getByRole('button', { name: 'Remove' }));
  expect(screen.getByRole('alertdialog', { name: 'Remove Lecture?' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
  expect(screen.queryByRole('alertdialog')).toBeNull();
  unmount();
  inCourse(<PlanPage />, { sessions: [{ ...sessions[0]!, state: 'held' }] });
  expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull();
});

test('what a session has of its own is said beside it', () => {
  const own = { ...sessions[0]!, endsAt: Date.now() + 1e9, startsAt: Date.now() + 9e8 };
  inCourse(<PlanPage />, {
    sessions: [
      { ...own, id: 'a', own: ['time', 'length'], state: 'moved' },
      { ...own, id: 'b', own: ['title'], title: 'Guest evening' },
      { ...own, id: 'c', own: ['added'], replaces: 'x' },
      { ...own, id: 'd', state: 'cancelled', record: false },
    ],
  });
  fireEvent.click(screen.getByRole('button', { name: 'Show the sessions' }));
  const lines = screen.getAllByTestId('session-line').map((l) => l.textContent ?? '');
  expect(lines[0]).toContain('a time of its own and a length of its own');
  expect(lines[1]).toContain('Guest evening');
  expect(lines[2]).toContain('added by hand and a make-up');
  expect(lines[3]).toContain('cancelled and not recorded');
  expect(within(screen.getAllByTestId('session-line')[3]!).getByText('Make it up')).toBeTruthy();
});

test('a change asks for its preview with every field, and saves what was previewed', async () => {
  const seen = outcome({
    sessions: [{ sessionId: 'x', title: 'Lecture', was: null, becomes: null, words: 'moves' }],
    told: [
      { member: 'a', name: 'Ana' },
      { member: 'b', name: 'Ben' },
    ],
  });
  answerRequests({ 'POST /api/courses/course/plan/preview': seen, 'POST /api/courses/course/plan': seen });
  const close = jest.fn();
  inCourse(
    <ChangePanel
      course={course()}
      session={sessions[3]!}
      to={{ date: '2026-09-23', start: '17:00' }}
      close={close}
    />,
  );
  fireEvent.click(screen.getByLabelText('This and later ones'));
  const button = await screen.findByRole('button', { name: 'Move it and tell 2 people' });
  await waitFor(() => expect(button.hasAttribute('disabled')).toBe(false));
  expect(screen.getByTestId('outcome').textContent).toContain('2 people will be told: Ana and Ben.');
  const edit = {
    edit: 'change-session',
    id: sessions[3]!.id,
    scope: 'later',
    change: { do: 'move', date: '2026-09-23', start: '17:00' },
  };
  expect(sent('POST', '/courses/course/plan/preview').at(-1)).toEqual(edit);
  fireEvent.click(button);
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(sent('POST', '/courses/course/plan')).toEqual([edit]);
});

test('of a session that was held only the name can be changed', () => {
  inCourse(<ChangePanel course={course()} session={{ ...sessions[0]!, state: 'held' }} close={() => {}} />);
  expect(screen.getByLabelText('Name of the session')).toBeTruthy();
  expect(screen.queryByLabelText('Only this one')).toBeNull();
});

test('findings say how grave they are; advice waits; a fix is one press', async () => {
  answerRequests({ 'POST /api/courses/course/fixes': { done: 'Kept longer' } });
  const fix = { label: 'Keep them', fix: { do: 'recording', plan: { keepUntil: '2027-01-01' } } } as const;
  const all = [
    finding({ id: 'a', level: 'stops', text: 'It stops.', fix }),
    finding({ id: 'b', level: 'advises', text: 'It advises.' }),
  ];
  inCourse(<Findings course={course()} findings={all} />);
  expect(screen.getByText('Stops:')).toBeTruthy();
  expect(screen.queryByText(/It advises/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: '1 more to consider' }));
  expect(screen.getByText(/It advises/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Keep them' }));
  await waitFor(() => expect(sent('POST', '/courses/course/fixes')).toEqual([{ finding: 'a' }]));
});

test('a stage shows its own findings, but not what its page is there to do; an assistant gets no fix', () => {
  const invite = finding({
    id: 'i',
    stage: 'invite',
    text: 'Nobody is invited.',
    fix: { label: 'Invite', fix: { do: 'invite' } },
  });
  const link = finding({
    id: 'l',
    stage: 'invite',
    text: 'A link is dead.',
    fix: { label: 'Mend', fix: { do: 'go', to: 'class' } },
  });
  const detail = course({ role: 'assistant', findings: [invite, link, finding({ stage: 'class' })] });
  show(<StageFindings course={detail} stage="invite" />);
  expect(screen.getAllByTestId('finding')).toHaveLength(1);
  expect(screen.queryByRole('link', { name: 'Mend' })).toBeNull();
});

test('dragged pixels are days and minutes, in steps of five', () => {
  const at = { startsAt: toInstant(TERM.zone, toEpochDay('2026-10-06'), 18 * 60 + 30) };
  expect(placeAfter(at, TERM.zone, { x: 0, y: 0 }, 100)).toBeNull();
  expect(placeAfter(at, TERM.zone, { x: 210, y: 48 }, 100)).toEqual({ date: '2026-10-08', start: '19:30' });
  expect(placeAfter(at, TERM.zone, { x: -100, y: -4 }, 100)).toEqual({ date: '2026-10-05', start: '18:25' });
  expect(placeAfter(at, TERM.zone, { x: 0, y: 9999 }, 100)!.start).toBe('23:55');
});

test('the week shows its sessions and their states, and turns', () => {
  inCourse(<WeekPage />, { sessions: [{ ...sessions[0]!, state: 'held' }, sessions[1]!] });
  const title = screen.getByRole('heading', { level: 1 }).textContent;
  for (let i = 0; i < 20; i++) fireEvent.click(screen.getByRole('button', { name: 'Week before' }));
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Week 1');
  expect(screen.getByLabelText(/^Lecture, Tue 1 Sep 18:30: held/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Week after' }));
  expect(screen.getByLabelText(/^Lecture, Tue 8 Sep 18:30: planned/)).toBeTruthy();
  expect(title).toMatch(/Week|Reading week/);
});

test('the zones are told in words too, each session that drifts by itself', () => {
  const zones = [
    { zone: 'Europe/Lisbon', people: 5 },
    { zone: 'America/Port_of_Spain', people: 2 },
  ];
  inCourse(<ZonesPage />, { zones });
  expect(screen.getByText('Lisbon').parentElement!.textContent).toBe('Lisbon: 22:30.');
  expect(screen.getAllByTestId('drift').map((d) => d.textContent)).toEqual([
    'Tue 27 Oct: 21:30, 1 h earlier than usual.',
  ]);
  expect(screen.getByText('Port of Spain').parentElement!.textContent).toBe(
    'Port of Spain: 17:30; from Tue 3 Nov on 18:30.',
  );
});

const student = (i: number, group: string | null = null) =>
  member({
    id: `p${i}`,
    name: `Tide Reader ${i}`,
    email: `t${i}@saltmarsh.example`,
    zone: i % 2 ? 'Europe/Lisbon' : 'America/Halifax',
    group,
    extra: { Level: i % 3 ? 'B1' : 'B2' },
  });

test('a class is split, somebody is put elsewhere, and all of it is one edit', async () => {
  answerRequests({
    '/api/courses/course/members': Array.from({ length: 6 }, (_, i) => student(i)),
    'POST /api/courses/course/plan/preview': outcome(),
    'POST /api/courses/course/plan': outcome({ words: 'The class split' }),
  });
  inCourse(<GroupsPage />);
  fireEvent.change(await screen.findByLabelText('At most'), { target: { value: '3' } });
  fireEvent.click(screen.getByRole('button', { name: 'Split' }));
  const a = screen.getByRole('region', { name: 'Group A' });
  expect(within(a).getAllByLabelText(/^Drag/)).toHaveLength(3);
  const first = within(a).getAllByLabelText(/^Group of/)[0]!;
  fireEvent.change(first, { target: { value: 'B' } });
  expect(within(screen.getByRole('region', { name: 'Group B' })).getAllByLabelText(/^Drag/)).toHaveLength(4);
  const save = screen.getByRole('button', { name: 'Save the groups' });
  await waitFor(() => expect(save.hasAttribute('disabled')).toBe(false));
  fireEvent.click(save);
  await waitFor(() => expect(sent('POST', '/courses/course/plan')).toHaveLength(1));
  const [{ plan }] = sent('POST', '/courses/course/plan') as [
    { plan: { groups: { people: string[] }[]; series: null } },
  ];
  expect(plan.groups.map((g) => g.people.length)).toEqual([2, 4]);
  expect(plan.series).toBeNull();
});

test('without a class list the groups lead to it', async () => {
  answerRequests({ '/api/courses/course/members': [] });
  inCourse(<GroupsPage />);
  expect(await screen.findByText(/Nobody is on the class list yet/)).toBeTruthy();
});

test('a make-up is booked from its slot, with the lost session named', async () => {
  const slot = {
    date: '2026-10-20',
    start: '10:00',
    startsAt: 1,
    endsAt: 2,
    week: 8,
    cost: 0,
    busy: 0,
    unsociable: 0,
    reasons: ['nobody of 3 has another class', 'at the usual hour'],
  };
  answerRequests({
    '/api/sessions/2026-09-01/make-ups?notice=48': {
      best: [slot],
      week: { monday: '2026-10-19', slots: [slot] },
      students: 3,
    },
    'POST /api/courses/course/plan/preview': outcome(),
    'POST /api/courses/course/plan': outcome(),
  });
  show(
    <CourseContext value={course({ series: [lecture], sessions })}>
      <MakeUpPage />
    </CourseContext>,
    { path: '/make-up/:session', at: '/make-up/2026-09-01' },
  );
  expect(await screen.findByText('nobody of 3 has another class and at the usual hour')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Choose it' }));
  const book = await screen.findByRole('button', { name: 'Book it' });
  await waitFor(() => expect(book.hasAttribute('disabled')).toBe(false));
  fireEvent.click(book);
  await waitFor(() =>
    expect(sent('POST', '/courses/course/plan')).toEqual([
      {
        edit: 'add-session',
        seriesId: 's',
        date: '2026-10-20',
        start: '10:00',
        minutes: 80,
        replaces: '2026-09-01',
      },
    ]),
  );
});

// The worker's own work, without the thread that jsdom does not have.
jest.mock('./calendarReader', () => ({
  timetableFrom: async (text: string, term: Term) => readTimetable(text, term),
}));

test('a timetable is previewed, bad lines are named, and nothing is sent before it is taken', async () => {
  inCourse(<CalendarsPage />);
  fireEvent.change(screen.getByLabelText('Or paste it here'), {
    target: { value: 'Series,Date,Start,Minutes\nTides,2026-10-06,10:00,50\nTides,never,10:00,50' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Read it' }));
  expect(await screen.findByLabelText('Tides: Tue 6 Oct 10:00–10:50')).toBeTruthy();
  expect(screen.getByText(/Line 3: "never"/)).toBeTruthy();
  expect(asked.filter((a) => a.method === 'POST')).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Leave it' }));
  expect(screen.queryByLabelText(/^Tides/)).toBeNull();
  fireEvent.change(screen.getByLabelText('Or paste it here'), { target: { value: 'nothing of the kind' } });
  fireEvent.click(screen.getByRole('button', { name: 'Read it' }));
  expect((await screen.findByRole('alert')).textContent).toContain('No column of dates');
});

test('a course is kept as a template under a name', async () => {
  answerRequests({
    '/api/templates': [{ id: 't', name: 'Evenings', at: 1, series: ['Lecture', 'Lab'] }],
    '/api/terms': [],
    'POST /api/courses/course/template': {},
  });
  inCourse(<ReusePage />);
  expect(await screen.findByText('Lecture and Lab')).toBeTruthy();
  expect(screen.getByText(/The college has no other term yet/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Keep this course as'), { target: { value: 'Evenings' } });
  fireEvent.click(screen.getByRole('button', { name: 'Replace the template' }));
  await waitFor(() => expect(sent('POST', '/courses/course/template')).toEqual([{ name: 'Evenings' }]));
});

test('the history says what, who and when; only the latest can be undone', async () => {
  const entry = (more: Partial<PlanChangeInfo>): PlanChangeInfo => ({
    id: 'c',
    at: Date.UTC(2026, 9, 6, 21),
    by: 'Maren Oduya',
    words: 'Lecture changed',
    sessions: [],
    told: 3,
    waiting: 0,
    undoneAt: null,
    undoable: false,
    spent: false,
    ...more,
  });
  answerRequests({
    '/api/courses/course/plan/history': [
      entry({ id: 'b', undoable: true }),
      entry({ undoneAt: 1, words: 'Lab added' }),
      entry({ id: 's', told: 0, waiting: 2, spent: true, words: 'Lab moved' }),
    ],
    'POST /api/courses/course/plan/undo': outcome({ words: 'Undone: Lecture changed' }),
  });
  inCourse(<HistoryPage />);
  expect((await screen.findAllByText('Maren Oduya, Tue 6 Oct, 18:00, 3 people told')).length).toBe(2);
  expect(screen.getByText('undone')).toBeTruthy();
  expect(screen.getByText('Maren Oduya, Tue 6 Oct, 18:00, 2 people told shortly')).toBeTruthy();
  expect(screen.getByText('nothing left to undo')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(sent('POST', '/courses/course/plan/undo')).toEqual([{ change: 'b' }]));
});

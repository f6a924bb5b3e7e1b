import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { noPreferences, type Attended, type ListedSession, type MyCourse } from '@nimble-bell/core/api';
import { MailboxPage } from '../invite/MailboxPage';
import { answerRequests, asked } from '../testing/answers';
import { myCourse, roomInfo, show } from '../testing/render';
import { ListedPage } from './ListedPage';
import { LettersOff } from './LettersOff';
import { StudentPage } from './StudentPage';
import { VisitPage } from './VisitPage';

const HOUR = 3_600_000;
const me = { now: Date.now(), person: null, demo: false, preferences: noPreferences() };
const startsAt = Date.now() + HOUR;
const session = {
  ...roomInfo({ member: 'ana', role: 'student' }).session,
  startsAt,
  endsAt: startsAt + HOUR,
  state: 'planned' as const,
};
const mine = (more: Partial<MyCourse> = {}): MyCourse =>
  myCourse({ sessions: [{ ...session, door: { open: false, because: 'teacher' } }], ...more });
const open = async (more: Partial<MyCourse> = {}, answers: Record<string, unknown> = {}) => {
  answerRequests({ '/api/me': me, '/api/my-course': mine(more), ...answers });
  show(<StudentPage />, { path: '/in/:code', at: '/in/abc' });
  // The last of the page, which is drawn after what one came for.
  await screen.findByRole('region', { name: 'About you' });
};
const sent = (method: string) => asked.filter((a) => a.method === method).map((a) => [a.path, a.body]);

test('one answers for a series, and for the next session alone', async () => {
  await open({}, { 'PUT /api/my-course/reply': {} });
  const panel = screen.getByRole('region', { name: 'Do you come?' });
  expect(within(panel).getByText('1 session ahead')).toBeTruthy();
  fireEvent.click(within(panel).getByLabelText('Perhaps'));
  fireEvent.click(screen.getByRole('button', { name: 'I cannot come to this one' }));
  await waitFor(() =>
    expect(sent('PUT')).toEqual([
      ['/api/my-course/reply', { seriesId: 'series', answer: 'tentative' }],
      ['/api/my-course/reply', { seriesId: 'series', date: '2026-10-06', take: 0, answer: 'declined' }],
    ]),
  );
});

test('who said they cannot come reads so, and can take it back', async () => {
  const replies = [
    {
      ...{ seriesId: 'series', date: '2026-10-06', take: 0, answer: 'declined' as const, at: 1 },
      ...{ outdated: false, verified: true },
    },
  ];
  await open({ replies }, { 'PUT /api/my-course/reply': {} });
  expect(screen.getByText('You said you cannot come.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'I can after all' }));
  await waitFor(() => expect(sent('PUT')[0]![1]).toMatchObject({ answer: 'accepted' }));
});

test('files stand with their session and with the course', async () => {
  const file = {
    id: 'f',
    name: 'Chart 4012.pdf',
    url: '/f',
    kind: 'file' as const,
    bytes: 900,
    type: 'application/pdf',
    by: 'Maren',
    at: 0,
  };
  await open({
    materials: [
      { ...file, sessionId: 'session' },
      {
        ...file,
        id: 'g',
        name: 'Tide tables',
        kind: 'link',
        url: 'https://saltmarsh.example',
        sessionId: null,
      },
    ],
  });
  const next = screen.getByRole('region', { name: 'Next session' });
  expect(within(next).getByRole('link', { name: 'Chart 4012.pdf' })).toBeTruthy();
  const all = screen.getByRole('region', { name: 'Files and links' });
  expect(within(all).getByRole('link', { name: 'Tide tables' }).getAttribute('target')).toBe('_blank');
  expect(within(all).queryByRole('link', { name: 'Chart 4012.pdf' })).toBeNull();
});

test('one’s own attendance is counted, with what was late', async () => {
  const line = (state: 'present' | 'absent', late = false): Attended['line'] => ({
    ...{ member: 'ana', name: 'Ana', role: 'student', state, from: null, until: null, stays: [] },
    ...{ minutes: state === 'present' ? 70 : 0, late, leftEarly: false },
    ...{ short: false, telephone: false, corrected: null },
  });
  const attended: Attended[] = [
    { sessionId: 'session', line: line('present', true) },
    { sessionId: 'another', line: line('absent') },
  ];
  await open({}, { '/api/my-course/attendance': attended });
  await waitFor(() => expect(screen.getByText('There in 1 of 2 sessions that were held.')).toBeTruthy());
  expect(screen.getByText('70 minutes, late')).toBeTruthy();
  expect(screen.getByText('not there')).toBeTruthy();
});

test('a name and a zone of one’s own are kept together', async () => {
  await open({}, { 'PUT /api/my-course/me': {} });
  expect(screen.getByText(/^In class you are called Ana/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Change' }));
  const keep = (await screen.findByRole('button', { name: 'Keep it' })) as HTMLButtonElement;
  expect(keep.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('What you are called in class'), { target: { value: ' Ana L. ' } });
  fireEvent.click(keep);
  await waitFor(() =>
    expect(sent('PUT')).toEqual([
      ['/api/my-course/me', { zone: 'Atlantic/Azores', preferredName: 'Ana L.', pronouns: null }],
    ]),
  );
  expect(await screen.findByRole('button', { name: 'Change' })).toBeTruthy();
});

test('a visitor needs name and passcode, and reads why not', async () => {
  answerRequests({ '/api/class/xyz': { code: 'TID-101', title: 'Reading the Tides' } });
  show(<VisitPage />, { path: '/class/:code', at: '/class/xyz' });
  await screen.findByText('TID-101 Reading the Tides');
  fireEvent.change(screen.getByLabelText(/^Your name/), { target: { value: 'Corin' } });
  fireEvent.change(screen.getByLabelText(/^Passcode/), { target: { value: 'wrong' } });
  answerRequests({});
  fireEvent.click(screen.getByRole('button', { name: 'Go to the class' }));
  await waitFor(() => expect(screen.getByRole('alert')).toBeTruthy());
  expect(sent('POST')).toEqual([['/api/class/xyz', { name: 'Corin', passcode: 'wrong' }]]);
});

test('listed sessions are told with their teachers; without any the page says so', async () => {
  const listed: ListedSession = {
    course: 'TID-101 Reading the Tides',
    title: '',
    series: 'Lecture',
    startsAt,
    endsAt: startsAt + HOUR,
    zone: 'America/Halifax',
    teachers: ['Maren Oduya', 'Iden Garrow'],
  };
  answerRequests({ '/api/listed': [listed] });
  const { unmount } = show(<ListedPage />);
  await waitFor(() => expect(screen.getByText('Maren Oduya, Iden Garrow')).toBeTruthy());
  unmount();
  answerRequests({ '/api/listed': [] });
  show(<ListedPage />);
  await waitFor(() => expect(screen.getByText('No session is listed at present.')).toBeTruthy());
});

test('everyone’s post is read, and an invitation in it answered as a calendar program would', async () => {
  const letter = {
    id: 4,
    to: 'ana@saltmarsh.example',
    from: 'classes@saltmarsh.example',
    subject: 'your way in',
    at: 0,
  };
  answerRequests({
    '/api/mailbox': [letter],
    '/api/mailbox/4': {
      ...letter,
      text: 'Dear Ana\n\nGo to http://127.0.0.1/in/abc',
      html: '<p>Dear Ana</p>',
      calendars: [{ method: 'REQUEST', title: 'TID-101 Lecture', content: 'BEGIN:VCALENDAR' }],
    },
    'POST /api/mailbox/4/answer': { sent: 1 },
  });
  show(<MailboxPage />, { path: '/mailbox', at: '/mailbox?letter=4' });
  await waitFor(() => expect(screen.getByText('Dear Ana')).toBeTruthy());
  expect(screen.getByRole('link', { name: 'http://127.0.0.1/in/abc' })).toBeTruthy();
  expect(screen.getByText('REQUEST TID-101 Lecture')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Decline' }));
  await waitFor(() => expect(sent('POST')).toEqual([['/api/mailbox/4/answer', { answer: 'declined' }]]));
});

test('what is ahead is counted without what is over; the whole term opens, in one’s own time', async () => {
  const door = { open: false, because: 'teacher' } as const;
  const hour = 3_600_000;
  const at = (n: number, more: object = {}) => ({
    ...session,
    ...{
      id: `s${n}`,
      startsAt: session.startsAt + n * 24 * 7 * hour,
      endsAt: session.endsAt + n * 24 * 7 * hour,
    },
    ...{ state: 'planned' as const, door },
    ...more,
  });
  const sessions = [
    at(-3),
    at(-1),
    ...Array.from({ length: 12 }, (_, n) => at(n + 1)),
    at(20, { state: 'cancelled', reason: 'The ferry does not run' }),
  ];
  await open({ sessions });
  const panel = screen.getByRole('region', { name: 'Do you come?' });
  expect(within(panel).getByText('12 sessions ahead')).toBeTruthy();
  const term = screen.getByRole('region', { name: 'The term ahead' });
  expect(within(term).getByText(/^12 sessions until/)).toBeTruthy();
  expect(within(term).getByText(/^By your clock in Azores, not that in Halifax/)).toBeTruthy();
  expect(within(term).getAllByRole('listitem')).toHaveLength(8);
  fireEvent.click(within(term).getByRole('button', { name: 'Show all 13' }));
  expect(within(term).getAllByRole('listitem')).toHaveLength(13);
  expect(within(term).getByText(/cancelled.*: The ferry does not run/)).toBeTruthy();
  const inClass = screen.getByRole('region', { name: 'In class' });
  expect(within(inClass).getByText('Sessions are not recorded by themselves.')).toBeTruthy();
});

test('the letters that one does without are switched off on a page of their own', async () => {
  answerRequests({ '/api/me': me, '/api/my-course': mine(), 'PUT /api/my-course/letters': {} });
  show(<LettersOff />, { path: '/in/:code/letters', at: '/in/abc/letters' });
  fireEvent.click(await screen.findByRole('switch', { name: /Reminders/ }));
  await waitFor(() => expect(sent('PUT')).toEqual([['/api/my-course/letters', { quiet: ['reminder'] }]]));
});

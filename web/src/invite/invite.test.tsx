import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { CourseDetail, Delivery, MaterialInfo, NoticeInfo, SeriesInfo } from '@nimble-bell/core/api';
import type { ReactNode } from 'react';
import { CourseContext } from '../app/course';
import { answerRequests, asked } from '../testing/answers';
import { course, member, show } from '../testing/render';
import { FilesPage } from './FilesPage';
import { InvitePage } from './InvitePage';
import { LettersPage } from './LettersPage';
import { NoticesPage } from './NoticesPage';
import { RemindersPage } from './RemindersPage';
import { TelephonePanel } from './TelephonePanel';

const series: SeriesInfo = {
  id: 's',
  title: 'Lecture',
  kind: 'class',
  pattern: null,
  group: null,
  expected: null,
  leads: [],
  publishedAt: 1,
  listed: false,
};
const inCourse = (detail: Partial<CourseDetail>, page: ReactNode) =>
  show(<CourseContext value={course(detail)}>{page}</CourseContext>);
const posts = () => asked.filter((a) => a.method !== 'GET' && !a.path.endsWith('/preview'));

test('the invite page counts who is still to be invited, and shows the letter as one person gets it', async () => {
  answerRequests({
    '/api/courses/course/members': [member({}), member({ id: 'm2', name: 'Ben Garrow', invitation: 'sent' })],
    'POST /api/courses/course/invitations/preview': {
      member: 'm1',
      name: 'Ana Lanyon',
      subject: 'TID-101: your way in',
      text: 'Dear Ana',
      html: '<p>Dear Ana</p>',
      entries: ['TID-101 Lecture, 14 sessions'],
    },
    'POST /api/courses/course/invitations': { queued: 1 },
  });
  inCourse(
    { series: [series], counts: { students: 2, invited: 1, undelivered: 0, recordings: 0 } },
    <InvitePage />,
  );
  await waitFor(() => expect(screen.getByText('TID-101: your way in')).toBeTruthy());
  expect(screen.getByText(/1 calendar entry inside: TID-101 Lecture, 14 sessions/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Invite 1 person' }));
  await waitFor(() => expect(posts()).toHaveLength(1));
  expect(posts()[0]!.body).toEqual({ members: null, groups: null, at: null, copyToMe: false });
});

test('people are invited at a time, or a while before each session until that is stopped', async () => {
  answerRequests({
    '/api/courses/course/members': [member({}), member({ id: 'm2', name: 'Ben Garrow', group: 'A' })],
    'POST /api/courses/course/invitations/preview': { name: 'Ana Lanyon', html: '', text: '', entries: [] },
    'PUT /api/courses/course/invite-before': {},
  });
  const counts = { students: 2, invited: 0, undelivered: 0, recordings: 0 };
  const { unmount } = inCourse({ series: [series], counts }, <InvitePage />);
  fireEvent.click(await screen.findByLabelText('At a time'));
  // No time is given yet.
  expect(screen.getByRole('button', { name: 'Invite 2 people' }).hasAttribute('disabled')).toBe(true);
  fireEvent.click(screen.getByLabelText('Before each session'));
  fireEvent.change(screen.getByLabelText('How long'), { target: { value: '3' } });
  fireEvent.click(screen.getByRole('button', { name: 'Invite 2 people to each session' }));
  const rule = { minutes: 3 * 1440, members: null, groups: null };
  await waitFor(() => expect(posts().map((a) => a.body)).toEqual([{ rule }]));
  unmount();
  inCourse({ series: [series], counts, inviteBefore: { ...rule, groups: ['A'] } }, <InvitePage />);
  expect(await screen.findByText(/invitation leaves 3 days before it, to group A\./)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Stop that' }));
  await waitFor(() => expect(posts().at(-1)!.body).toEqual({ rule: null }));
});

test('the telephone line is kept, its letters read before, and taken away', async () => {
  answerRequests({
    'PUT /api/courses/course/telephone': { told: [{ member: 'm1', name: 'Ana Lanyon' }] },
    'POST /api/courses/course/telephone/letters': [],
  });
  const kept = () => asked.filter((a) => a.method === 'PUT').map((a) => a.body);
  const counts = { students: 1, invited: 1, undelivered: 0, recordings: 0 };
  const { unmount } = inCourse({ counts }, <TelephonePanel />);
  expect(screen.queryByText(/are told/)).toBeNull();
  fireEvent.change(screen.getByLabelText('Number of the line'), { target: { value: '+1 902 555 0140' } });
  fireEvent.click(screen.getByRole('button', { name: 'Read what they get' }));
  await waitFor(() => expect(posts().map((a) => a.body)).toEqual([{ number: '+1 902 555 0140' }]));
  fireEvent.click(screen.getByRole('button', { name: 'Keep this number' }));
  await waitFor(() => expect(kept()).toEqual([{ number: '+1 902 555 0140' }]));
  unmount();
  inCourse({ counts, telephone: '+1 902 555 0140' }, <TelephonePanel />);
  fireEvent.change(screen.getByLabelText('Number of the line'), { target: { value: ' ' } });
  fireEvent.click(screen.getByRole('button', { name: 'Take the line away' }));
  await waitFor(() => expect(kept().at(-1)).toEqual({ number: null }));
});

const letter = (more: Partial<Delivery>): Delivery => ({
  id: 1,
  member: 'm1',
  name: 'Ana Lanyon',
  email: 'ana@saltmarsh.example',
  topic: 'invitation',
  subject: 'your way in',
  state: 'sent',
  at: 0,
  fault: null,
  answer: null,
  ...more,
});

test('the log says what became of each letter, and those that were lost are sent again', async () => {
  answerRequests({
    '/api/courses/course/deliveries': [
      letter({}),
      letter({ id: 2, name: 'Ben Garrow', state: 'queued', fault: 'connect ECONNREFUSED' }),
      letter({ id: 3, name: 'Cleo Penhale', state: 'bounced', fault: 'There is no such mailbox.' }),
      letter({ id: 4, name: 'Dora Quill', state: 'void' }),
    ],
    'POST /api/courses/course/deliveries/resend': { queued: 1 },
  });
  inCourse({}, <LettersPage />);
  await waitFor(() => expect(screen.getByText('1 of 3 sent, 1 came back')).toBeTruthy());
  expect(screen.getByText('connect ECONNREFUSED')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Send the 1 lost letter again' }));
  await waitFor(() => expect(posts()[0]?.body).toEqual({ letters: [3] }));
});

test('reminders are said in words, added and taken away', async () => {
  answerRequests({ 'PUT /api/courses/course/reminders': {} });
  inCourse({ reminders: [10, 1440] }, <RemindersPage />);
  expect(screen.getByText('1 day before')).toBeTruthy();
  expect((screen.getByRole('button', { name: 'Add this reminder' }) as HTMLButtonElement).disabled).toBe(
    true,
  );
  fireEvent.click(screen.getByRole('button', { name: 'No reminder 10 minutes before' }));
  await waitFor(() => expect(posts()[0]?.body).toEqual({ minutes: [1440] }));
});

const file: MaterialInfo = {
  id: 'f',
  sessionId: null,
  name: 'Chart 4012.pdf',
  url: '/api/materials/f/file?ticket=x',
  kind: 'file',
  bytes: 2_400_000,
  type: 'application/pdf',
  by: 'Maren Oduya',
  at: 0,
};

test('files are listed with what they are for, and taken away', async () => {
  answerRequests({ '/api/courses/course/materials': [file], 'DELETE /api/materials/f': {} });
  inCourse({}, <FilesPage />);
  await waitFor(() => expect(screen.getByText('2.4 MB')).toBeTruthy());
  fireEvent.click(screen.getByRole('button', { name: 'Take away' }));
  await waitFor(() => expect(posts()[0]).toMatchObject({ method: 'DELETE', path: '/api/materials/f' }));
});

test('a notice shows its own text and the day of the plan; what is not a web address is no link', async () => {
  const notice: NoticeInfo = {
    id: 'n',
    title: 'Bring the chart',
    body: {
      type: 'doc',
      content: [
        {
          type: 'paragraph',
          content: [
            {
              type: 'text',
              text: 'see here',
              marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }],
            },
            {
              type: 'text',
              text: 'and there',
              marks: [{ type: 'link', attrs: { href: 'https://saltmarsh.example' } }],
            },
          ],
        },
        { type: 'dayPlan', attrs: { date: '2026-10-06' } },
      ],
    },
    from: 0,
    until: null,
    pinned: true,
    mailedAt: null,
    by: 'Maren Oduya',
    at: 0,
    days: [
      {
        date: '2026-10-06',
        sessions: [
          {
            id: 's',
            title: 'Lecture',
            startsAt: Date.UTC(2026, 9, 6, 21, 30),
            endsAt: Date.UTC(2026, 9, 6, 22, 50),
            cancelled: false,
          },
        ],
        materials: [file],
      },
    ],
  };
  answerRequests({ '/api/courses/course/notices': [notice] });
  inCourse({}, <NoticesPage />);
  await waitFor(() => expect(screen.getByText('Tue 6 Oct')).toBeTruthy());
  expect(screen.getByText('18:30–19:50')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Chart 4012.pdf' })).toBeTruthy();
  expect(screen.queryByRole('link', { name: 'see here' })).toBeNull();
  expect(screen.getByRole('link', { name: 'and there' }).getAttribute('href')).toBe(
    'https://saltmarsh.example',
  );
});

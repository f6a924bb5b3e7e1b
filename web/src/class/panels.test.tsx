import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { CourseDetail, ListChangeInfo, MemberInfo } from '@nimble-bell/core/api';
import type { ReactNode } from 'react';
import { CourseContext } from '../app/course';
import { answerRequests, asked } from '../testing/answers';
import { course, member, roomInfo, show } from '../testing/render';
import { AddPerson } from './AddPerson';
import { BulkBar } from './BulkBar';
import { ClassLinkPanel } from './ClassLinkPanel';
import { LatestListChange, ListHistory } from './ListHistory';
import { replyWords, scopeWords } from './words';

const startsAt = Date.now() + 3_600_000;
const session = {
  ...roomInfo({ member: 'm', role: 'teacher' }).session,
  state: 'planned' as const,
  startsAt,
  endsAt: startsAt + 80 * 60_000,
};
const inCourse = (part: ReactNode, detail: Partial<CourseDetail> = {}) =>
  show(<CourseContext value={course({ sessions: [session], ...detail })}>{part}</CourseContext>);
const sent = (path: string) => asked.filter((a) => a.method !== 'GET' && a.path === path).map((a) => a.body);

const LIST = '/api/courses/course/members';
const outcome = { changeId: 'c', words: 'Done', people: [], mail: [] };

test('a guest needs a session, and has a link that ends after it, with the rights chosen', async () => {
  answerRequests({ [`POST ${LIST}`]: outcome });
  let done = false;
  inCourse(<AddPerson done={() => (done = true)} />);
  fireEvent.click(screen.getByRole('combobox', { name: 'Role' }));
  fireEvent.click(await screen.findByRole('option', { name: 'guest' }));
  expect(screen.getByText(/comes by a link for the sessions chosen/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText(/^Name/), { target: { value: 'Petra Quill' } });
  fireEvent.change(screen.getByLabelText(/^E-mail/), { target: { value: 'petra@example.org' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add Petra Quill' }));
  await waitFor(() => expect(screen.getByText('Say which session they come to.')).toBeTruthy());
  expect(sent(LIST)).toEqual([]);
  fireEvent.click(screen.getByPlaceholderText('Choose'));
  fireEvent.click(await screen.findByRole('option', { name: /^Lecture 3/ }));
  fireEvent.click(screen.getByLabelText('Show themselves'));
  fireEvent.click(screen.getByRole('button', { name: 'Add Petra Quill' }));
  await waitFor(() => expect(done).toBe(true));
  expect(sent(LIST)).toMatchObject([
    {
      edit: 'add',
      invite: true,
      person: {
        role: 'guest',
        scope: { series: [], sessions: ['session'] },
        until: session.endsAt + 2 * 3_600_000,
        capabilities: ['speak', 'present'],
      },
    },
  ]);
});

test('what adding somebody does, and to whom it writes, stands there before it is done', async () => {
  answerRequests({
    [`POST ${LIST}/preview`]: {
      ...outcome,
      people: [{ member: 'n', name: 'Ned Hollis', words: 'is new, with 30 sessions ahead' }],
      mail: [{ topic: 'invitation', count: 1, names: ['Ned Hollis'] }],
    },
  });
  inCourse(<AddPerson done={() => {}} />);
  fireEvent.change(screen.getByLabelText(/^Name/), { target: { value: 'Ned Hollis' } });
  expect(asked).toEqual([]);
  fireEvent.change(screen.getByLabelText(/^E-mail/), { target: { value: 'ned@saltmarsh.example' } });
  expect(await screen.findByText('Ned Hollis is new, with 30 sessions ahead')).toBeTruthy();
  expect(screen.getByText('1 person gets an invitation: Ned Hollis.')).toBeTruthy();
  expect(sent(LIST)).toEqual([]);
});

test('what is wrong with an address stands beside it', async () => {
  answerRequests({});
  Object.assign(globalThis, {
    fetch: async () => ({
      ok: false,
      status: 422,
      json: async () => ({
        error: {
          code: 'invalid',
          message: 'Something in the form needs mending.',
          fields: [
            { path: 'person.email', message: 'This address is on the class list already, as student.' },
          ],
        },
      }),
    }),
  });
  inCourse(<AddPerson done={() => {}} />);
  fireEvent.change(screen.getByLabelText(/^Name/), { target: { value: 'Ana' } });
  fireEvent.change(screen.getByLabelText(/^E-mail/), { target: { value: 'ana@saltmarsh.example' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add Ana' }));
  await waitFor(() => expect(screen.getByText(/is on the class list already, as student/)).toBeTruthy());
});

const bar = (chosen: MemberInfo[]) => {
  answerRequests({
    [`POST ${LIST}/preview`]: outcome,
    [`POST ${LIST}`]: outcome,
    'POST /api/courses/course/invitations': { queued: chosen.length },
    [`DELETE ${LIST}/m1/data`]: {},
  });
  let cleared = false;
  inCourse(<BulkBar chosen={chosen} clear={() => (cleared = true)} />);
  return () => cleared;
};

test('those chosen are invited, or invited again, by one press', async () => {
  bar([member(), member({ id: 'm2', invitation: 'sent' })]);
  fireEvent.click(screen.getByRole('button', { name: 'Invite again' }));
  await waitFor(() => expect(sent('/api/courses/course/invitations')).toEqual([{ members: ['m1', 'm2'] }]));
  expect(screen.queryByRole('button', { name: 'Copy the link' })).toBeNull();
});

test('the way in of one chosen person is there to read out, with their PIN', () => {
  answerRequests({});
  inCourse(<BulkBar chosen={[member({ link: '/in/abc', pin: '12345678' })]} clear={() => {}} />);
  expect(screen.getByText(/\/in\/abc, PIN 1234 5678$/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Copy the link' })).toBeTruthy();
});

test('of several people, or of a teacher, no way in is shown', () => {
  answerRequests({});
  const two = [member({}), member({ id: 'm2' })];
  const { unmount } = inCourse(<BulkBar chosen={two} clear={() => {}} />);
  expect(screen.queryByRole('button', { name: 'Copy the link' })).toBeNull();
  unmount();
  inCourse(<BulkBar chosen={[member({ role: 'teacher' })]} clear={() => {}} />);
  expect(screen.queryByRole('button', { name: 'Copy the link' })).toBeNull();
});

test('links are replaced only after what it breaks was read', async () => {
  bar([member()]);
  expect(screen.getByRole('button', { name: 'Invite' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Replace links' }));
  const dialog = await screen.findByRole('dialog');
  await waitFor(() => expect(within(dialog).getByText('Nobody is written to.')).toBeTruthy());
  fireEvent.click(within(dialog).getByRole('button', { name: 'Leave it as it is' }));
  expect(sent(LIST)).toEqual([]);
});

test('a person is forgotten only after a plain question', async () => {
  const cleared = bar([member()]);
  fireEvent.click(screen.getByRole('button', { name: 'Forget' }));
  expect(screen.getByText(/are gone from this course for good/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Keep them' }));
  expect(screen.queryByText(/are gone for good/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Forget' }));
  fireEvent.click(screen.getByRole('button', { name: 'Forget them' }));
  await waitFor(() => expect(cleared()).toBe(true));
});

test('the class link is hidden until it is wanted, and replaced or hidden after a question', async () => {
  const path = '/api/courses/course/class-link';
  answerRequests({
    [path]: { path: null, passcode: null },
    [`PUT ${path}`]: { path: '/class/abc', passcode: 'tide42' },
  });
  const { unmount } = inCourse(<ClassLinkPanel />);
  fireEvent.click(await screen.findByRole('button', { name: 'Show a class link' }));
  await waitFor(() => expect(sent(path)).toEqual([{ do: 'show' }]));
  unmount();
  answerRequests({
    [path]: { path: '/class/abc', passcode: 'tide42' },
    [`PUT ${path}`]: { path: null, passcode: null },
  });
  inCourse(<ClassLinkPanel />);
  await waitFor(() => expect(screen.getByDisplayValue('tide42')).toBeTruthy());
  fireEvent.click(screen.getByRole('button', { name: 'Hide' }));
  expect(screen.getByText(/The address opens nothing from then on/)).toBeTruthy();
  expect(sent(path)).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Hide it' }));
  await waitFor(() => expect(sent(path)).toEqual([{ do: 'hide' }]));
});

const change = (more: Partial<ListChangeInfo>): ListChangeInfo => ({
  id: 'c1',
  at: Date.now(),
  by: 'Maren Oduya',
  words: 'Ana Lanyon taken off the list',
  people: 1,
  undoneAt: null,
  undoable: false,
  spent: false,
  ...more,
});

test('the latest change is undone by one press; older ones stand in the history', async () => {
  answerRequests({
    [`${LIST}/history`]: [
      change({ undoable: true }),
      change({ id: 'c0', words: 'Class list read', undoneAt: 5 }),
    ],
    [`POST ${LIST}/undo`]: { ...outcome, words: 'Undone' },
  });
  inCourse(
    <>
      <LatestListChange />
      <ListHistory />
    </>,
  );
  const latest = await screen.findByRole('status');
  expect(latest.textContent).toContain('Ana Lanyon taken off the list.');
  expect(screen.getByText('undone')).toBeTruthy();
  fireEvent.click(within(latest).getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(sent(`${LIST}/undo`)).toEqual([{ change: 'c1' }]));
});

test('replies and what somebody is here for are said in words', () => {
  const reply = (seriesId: string, answer: 'accepted' | 'declined', date: string | null = null) => ({
    seriesId,
    answer,
    date,
    at: 1,
    take: 0,
    outdated: false,
    verified: true,
  });
  expect(replyWords(member())).toBe('');
  expect(replyWords(member({ replies: [reply('a', 'accepted'), reply('b', 'accepted')] }))).toBe('accepted');
  expect(
    replyWords(
      member({
        replies: [reply('a', 'accepted'), reply('b', 'declined'), reply('a', 'declined', '2026-10-06')],
      }),
    ),
  ).toBe('accepted 1, declined 1, 1 session');
  expect(scopeWords({ series: [], sessions: ['session'] }, course({ sessions: [session] }))).toBe(
    'only Lecture 3',
  );
});

import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { ExportInfo, RecordingDetail, ShareInfo } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../testing/answers';
import { show } from '../testing/render';
import CheckSaved from './CheckSaved';
import { hashOf } from './hashOf';
import SharePanel from './SharePanel';
import TakeAlong from './TakeAlong';
import WhoMay from './WhoMay';

jest.mock('./hashOf', () => ({ hashOf: jest.fn() }));

const recording = {
  ...{ id: 'r', zone: 'America/Halifax', mediaPath: '/api/recordings/r/media/s.webm?ticket=t', captions: [] },
} as unknown as RecordingDetail;
const sent = (method: string) => asked.find((a) => a.method === method);

test('what is being made is seen, and taken back by a press', async () => {
  const making: ExportInfo = {
    ...{ id: 'e', kind: 'film.mp4', state: 'making', progress: 0.25 },
    ...{ bytes: 0, path: null, goneAt: null, sha256: null },
  };
  const waiting: ExportInfo = { ...making, id: 'w', kind: 'archive.zip', state: 'waiting', progress: 0 };
  answerRequests({
    '/api/recordings/r/exports': [making, waiting],
    'DELETE /api/recordings/r/exports/e': {},
  });
  show(<TakeAlong recording={recording} />);
  expect(await screen.findByText('25 %')).toBeTruthy();
  expect(screen.getByText('waits')).toBeTruthy();
  fireEvent.click(screen.getAllByRole('button', { name: 'Not after all' })[0]!);
  await waitFor(() => expect(sent('DELETE')?.path).toBe('/api/recordings/r/exports/e'));
});

test('what was not asked for yet is made by one press', async () => {
  answerRequests({ '/api/recordings/r/exports': [], 'POST /api/recordings/r/exports': { id: 'n' } });
  show(<TakeAlong recording={recording} />);
  fireEvent.click(await screen.findByRole('button', { name: 'Make: Sound alone (MP3)' }));
  await waitFor(() => expect(sent('POST')?.body).toEqual({ kind: 'sound.mp3' }));
});

test('a link for anybody is good until the end of a day where the term is at home', async () => {
  answerRequests({
    '/api/recordings/r/shares': [],
    'POST /api/recordings/r/shares': { id: 's', path: '/shared/x' },
  });
  show(<SharePanel recording={recording} />);
  expect(await screen.findByText('Nobody but the class can watch it.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Make a link' }));
  await waitFor(() => expect(sent('POST')).toBeDefined());
  const { until } = sent('POST')!.body as { until: number };
  const clock = new Intl.DateTimeFormat('en-GB', { timeZone: 'America/Halifax', timeStyle: 'short' });
  expect(clock.format(until)).toBe('23:59');
});

test('links say until when they are good and how often they were opened, and are taken back one by one', async () => {
  const until = Date.UTC(2026, 9, 21, 2, 59);
  const links: ShareInfo[] = [
    { id: 'a', path: '/shared/aaa', until, ended: false, opened: 7 },
    { id: 'b', path: '/shared/bbb', until: until - 9e8, ended: true, opened: 0 },
  ];
  answerRequests({ '/api/recordings/r/shares': links, 'DELETE /api/recordings/r/shares/a': {} });
  show(<SharePanel recording={recording} />);
  expect(await screen.findByText(/\/shared\/aaa$/)).toBeTruthy();
  expect([screen.getByText('7'), screen.getByText('over')]).toHaveLength(2);
  fireEvent.click(screen.getByRole('button', { name: 'Take back the link until Tue 20 Oct, 23:59' }));
  await waitFor(() => expect(sent('DELETE')?.path).toBe('/api/recordings/r/shares/a'));
});

test('who may watch is said for a recording: from when, for how long, by whom alone; or as the course has it', async () => {
  const members = [
    { id: 'ana', name: 'Ana Lanyon', role: 'student', group: 'A' },
    { id: 'ben', name: 'Ben Garrow', role: 'student', group: 'B' },
  ];
  answerRequests({ '/api/courses/undefined/members': members, 'PUT /api/courses/undefined/rules': {} });
  const plan = { automatic: true, keepUntil: '2027-03-01', studentsWatch: true, studentsDownload: false };
  show(<WhoMay recording={{ ...recording, sessionId: 's', plan }} />);
  const days = await screen.findByLabelText('From so many days after class');
  fireEvent.change(days, { target: { value: '3' } });
  fireEvent.click(screen.getByRole('switch', { name: 'Students may download' }));
  fireEvent.click(screen.getAllByLabelText('For these groups alone')[0]!);
  fireEvent.click(await screen.findByRole('option', { name: 'B', hidden: true }));
  fireEvent.click(screen.getByRole('button', { name: 'Let it be so' }));
  const at = { layer: 'session', ids: ['s'] };
  await waitFor(() =>
    expect(sent('PUT')?.body).toEqual({
      at,
      recording: { watchAfterDays: 3, studentsDownload: true, onlyFor: { groups: ['B'], members: [] } },
    }),
  );
  asked.length = 0;
  fireEvent.click(screen.getByRole('button', { name: 'As the course has it' }));
  await waitFor(() =>
    expect(sent('PUT')?.body).toMatchObject({ at, recording: { onlyFor: null, studentsWatch: null } }),
  );
});

test('what was saved is compared with what was made; what came whole may be let go from here', async () => {
  const choose = () =>
    fireEvent.change(document.querySelector('input[type=file]')!, {
      target: { files: [new File(['x'], 'x.zip')] },
    });
  show(<CheckSaved recording={{ ...recording, caring: true }} sha256="aa" whole />);
  jest.mocked(hashOf).mockResolvedValueOnce('bb');
  choose();
  expect(await screen.findByText('No: this is not what was made. Save it again.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /let it go/ })).toBeNull();
  jest.mocked(hashOf).mockResolvedValueOnce('aa');
  choose();
  expect(await screen.findByText('Yes: it is what was made, to the last byte.')).toBeTruthy();
  answerRequests({ 'DELETE /api/recordings/r': {} });
  fireEvent.click(screen.getByRole('button', { name: 'Then let it go from here …' }));
  expect(sent('DELETE')).toBeUndefined();
  fireEvent.click(screen.getByRole('button', { name: 'Delete it for everyone' }));
  await waitFor(() => expect(sent('DELETE')?.path).toBe('/api/recordings/r'));
});

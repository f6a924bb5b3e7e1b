import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import type { CourseDetail, MemberInfo, MyCourse, RoomInfo, SessionInfo, Voice } from '@nimble-bell/core/api';
import { COLLEGE_DOOR } from '@nimble-bell/core/door';
import { COLLEGE_LIMITS } from '@nimble-bell/core/limits';
import type { RoomEvent } from '@nimble-bell/core/room';
import { courseLimits, entry, opening, TestRoom } from '@nimble-bell/core/testing';
import { Lines } from '../room/live/lines';
import { RoomContext, type RoomTools } from '../room/live/useRoom';
import { Voices } from '../room/live/voices';
import { CourseContext } from '../app/course';

/** A part of a page, with what surrounds every page. */
export function show(part: ReactNode, { path = '*', at = '/' } = {}) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <MantineProvider env="test">
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={[at]}>
          <Routes>
            <Route path={path} element={part} />
            <Route path="*" element={null} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  );
}

export const course = (more: Partial<CourseDetail> = {}): CourseDetail => ({
  id: 'course',
  code: 'TID-101',
  title: 'Reading the Tides',
  role: 'teacher',
  term: {
    name: 'Autumn evenings',
    zone: 'America/Halifax',
    firstDay: '2026-08-31',
    lastDay: '2026-12-13',
    daysOff: [{ from: '2026-10-12', to: '2026-10-18', name: 'Reading week' }],
    daySwaps: [],
  },
  series: [],
  sessions: [],
  standing: [],
  termId: 'term',
  bellTimes: [],
  teachers: [],
  youngPupils: false,
  findings: [],
  clashes: [],
  zones: [],
  limits: COLLEGE_LIMITS,
  limitsSet: null,
  door: COLLEGE_DOOR,
  recordingPlan: null,
  counts: { students: 0, invited: 0, undelivered: 0, recordings: 0 },
  archivedAt: null,
  reminders: [],
  inviteBefore: null,
  telephone: null,
  invitation: null,
  stages: {
    plan: 'needs you',
    class: 'not yet',
    invite: 'not yet',
    limits: 'not yet',
    recording: 'not yet',
    teach: 'not yet',
    review: 'not yet',
  },
  ...more,
});

export const member = (more: Partial<MemberInfo> = {}): MemberInfo => ({
  id: 'm1',
  name: 'Ana Lanyon',
  preferredName: null,
  email: 'ana@saltmarsh.example',
  zone: 'Atlantic/Azores',
  zoneOwn: false,
  role: 'student',
  group: null,
  extra: {},
  scope: null,
  capabilities: [],
  pin: null,
  link: '/in/x',
  linkAt: null,
  linkUntil: null,
  lastSeen: null,
  invitation: 'none',
  replies: [],
  ...more,
});

export const roomInfo = (me: RoomInfo['me']): RoomInfo => ({
  session: {
    id: 'session',
    seriesId: 'series',
    seriesTitle: 'Lecture',
    number: 3,
    date: '2026-10-06',
    startsAt: Date.UTC(2026, 9, 6, 21, 30),
    endsAt: Date.UTC(2026, 9, 6, 22, 50),
    minutes: 80,
    lingerMinutes: 10,
    state: 'live',
    group: null,
    kind: 'class',
    title: null,
    own: [],
    replaces: null,
    record: null,
    listed: false,
    published: true,
    take: 0,
    reason: null,
  },
  course: { id: 'course', code: 'TID-101', title: 'Reading the Tides' },
  zone: 'America/Halifax',
  me,
  people: [
    { member: 'maren', name: 'Maren Oduya', role: 'teacher', group: null },
    { member: 'ana', name: 'Ana Lanyon', role: 'student', group: null },
    { member: 'ben', name: 'Ben Garrow', role: 'student', group: null },
  ],
  relay: true,
});

export const HOUR = 3_600_000;

/** A session half an hour from now. */
export function freshSession(more: Partial<SessionInfo> = {}): SessionInfo {
  const startsAt = Date.now() + HOUR / 2;
  return {
    ...roomInfo({ member: 'm', role: 'teacher' }).session,
    startsAt,
    endsAt: startsAt + 80 * 60_000,
    state: 'planned',
    ...more,
  };
}

/** A page inside a course. */
export const inCourse = (detail: Partial<CourseDetail>, page: ReactNode) =>
  show(<CourseContext value={course(detail)}>{page}</CourseContext>);

/** A room as its events made it, seen by one member; what they send is kept, and more can happen in it. */
export const maren = { member: 'maren', role: 'teacher' as const };
export const ana = { member: 'ana', role: 'student' as const };
/** Maren has rung in, and Ana and Ben are there. */
export const CLASS: RoomEvent[] = [
  entry('maren', 'Maren Oduya', 'teacher'),
  { type: 'rangIn', by: 'maren' },
  entry('ana'),
  entry('ben'),
];

export function roomTools(me: RoomInfo['me'], events: readonly RoomEvent[], more: Partial<RoomInfo> = {}) {
  const info = { ...roomInfo(me), ...more };
  const sent: object[] = [];
  const room = new TestRoom().happen(opening([courseLimits(COLLEGE_LIMITS)]), ...events);
  const view = () => ({ status: 'in', info, state: room.state, relay: true, refusal: null });
  const voices = new Voices();
  const connection = {
    view: view(),
    subscribe: (l: () => void) => (listeners.add(l), () => listeners.delete(l)),
    signal: (signal: object) => void signals.push(signal),
    onSignal: (l: (signal: object) => void) => (heard.add(l), () => heard.delete(l)),
    voices,
  };
  const signals: object[] = [];
  const heard = new Set<(signal: object) => void>();
  const hear = (signal: object) => heard.forEach((l) => l(signal));
  const listeners = new Set<() => void>();
  const happen = (...later: RoomEvent[]) => {
    room.happen(...later);
    connection.view = view();
    for (const listener of listeners) listener();
  };
  const send = async (command: object) => (sent.push(command), true);
  const none: never[] = [];
  const call = {
    subscribe: () => () => {},
    tracks: () => none,
    levels: () => new Map(),
    looks: { want: () => () => {} },
    ease: () => {},
    measured: async () => null,
  };
  const sendWithDevice = (_kind: string, command: object) => send(command);
  return {
    tools: {
      connection,
      call,
      lines: new Lines(connection as never),
      send,
      sendWithDevice,
    } as unknown as RoomTools,
    sent,
    happen,
    room,
    signals,
    hear,
    voice: (of: Voice) => voices.heed(of),
  };
}

export const showInRoom = (tools: RoomTools, part: ReactNode) =>
  show(<RoomContext value={tools}>{part}</RoomContext>);

/** A student's own course, with nothing in it yet. */
export const myCourse = (more: Partial<MyCourse> = {}): MyCourse => ({
  course: { id: 'course', code: 'TID-101', title: 'Reading the Tides', term: course().term },
  me: {
    member: 'ana',
    name: 'Ana Lanyon',
    preferredName: null,
    pronouns: null,
    zone: 'Atlantic/Azores',
    role: 'student',
    quiet: [],
  },
  telephone: null,
  teachers: ['Maren Oduya'],
  sessions: [],
  recordings: [],
  rooms: [],
  door: course().door,
  notices: [],
  materials: [],
  inClass: { may: 'Open to you in class: signs.', recorded: 'Sessions are not recorded by themselves.' },
  countsPart: false,
  replies: [],
  ...more,
});

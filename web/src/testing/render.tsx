import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import type { Capability, CourseDetail, MemberInfo, RoomInfo, StoredEvent } from '@nimble-bell/core/api';
import { COLLEGE_DOOR } from '@nimble-bell/core/door';
import { COLLEGE_LIMITS } from '@nimble-bell/core/limits';
import { evolve, may, newRoom } from '@nimble-bell/core/room';
import { RoomContext, type RoomTools } from '../room/useRoom';

/** A part of a page, with what surrounds every page. */
export function show(part: ReactNode, { path = '*', at = '/' } = {}) {
  const router = createMemoryRouter(
    [
      { path, element: part },
      { path: '*', element: null },
    ],
    { initialEntries: [at] },
  );
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <MantineProvider env="test">
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
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
  counts: { students: 0, invited: 0, recordings: 0 },
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
  },
  course: { id: 'course', code: 'TID-101', title: 'Reading the Tides' },
  zone: 'America/Halifax',
  me,
  people: [
    { member: 'maren', name: 'Maren Oduya', role: 'teacher', group: null },
    { member: 'ana', name: 'Ana Lanyon', role: 'student', group: null },
    { member: 'ben', name: 'Ben Garrow', role: 'student', group: null },
  ],
  base: [{ name: 'course', values: COLLEGE_LIMITS, by: 'Maren Oduya', at: 1 }],
  relay: true,
  records: true,
});

/** A room as its events made it, seen by one member; what they send is kept. */
export function roomTools(me: RoomInfo['me'], events: object[]): { tools: RoomTools; sent: object[] } {
  const info = roomInfo(me);
  const sent: object[] = [];
  const state = events
    .map((e, i) => ({ ...e, seq: i + 1, at: 1000 * i }) as StoredEvent)
    .reduce(evolve, newRoom(info.base));
  const send = async (command: object) => (sent.push(command), true);
  const none: never[] = [];
  const call = { subscribe: () => () => {}, tracks: () => none, levels: () => new Map() };
  const tools = {
    info,
    state,
    call,
    view: { status: 'in', info, state, relay: true, refusal: null },
    me: me.member,
    teaching: me.role === 'teacher',
    send,
    sendWithDevice: (_kind: string, command: object) => send(command),
    may: (capability: Capability) => may(state, me.member, me.role, capability),
    nameOf: (member: string) => info.people.find((p) => p.member === member)?.name ?? member,
  } as unknown as RoomTools;
  return { tools, sent };
}

export const showInRoom = (tools: RoomTools, part: ReactNode) =>
  show(<RoomContext value={tools}>{part}</RoomContext>);

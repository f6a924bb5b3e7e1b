import type { MeetingPattern } from '@nimble-bell/core/api';
import { sessionsOf } from '@nimble-bell/core/calendar';
import type { CoursePlan } from '../calendars/entries';
import type { SeriesRow, SessionRow } from '../courses/store';
import type { Desk } from '../mail/compose';
import { resolveAll } from '@nimble-bell/core/limits';
import { autumn } from '@nimble-bell/core/testing';
import type { MemberRow } from '../accounts/store';

export const NOW = Date.UTC(2026, 9, 6, 21, 0);
export const term = autumn();

export const weekly = (...days: ('monday' | 'tuesday' | 'thursday' | 'friday')[]): MeetingPattern => ({
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'term' },
  days: days.map((day) => ({ day, start: '18:30', minutes: 80 })),
});

export const seriesRow = (id: string, more: Partial<SeriesRow> = {}): SeriesRow => ({
  id,
  courseId: 'c',
  title: id,
  kind: 'class',
  pattern: weekly('tuesday'),
  group: null,
  expected: null,
  leads: [],
  publishedAt: 1,
  listed: false,
  sequence: 0,
  ...more,
});

/** The sessions of a series as its pattern gives them. */
export const sessionRows = (series: SeriesRow): SessionRow[] =>
  (series.pattern ? sessionsOf(term, series.pattern).sessions : []).map((p) => ({
    ...p,
    id: `${series.id}-${p.date}`,
    courseId: 'c',
    seriesId: series.id,
    seriesTitle: series.title,
    group: series.group,
    kind: series.kind,
    published: series.publishedAt !== null,
    state: 'planned',
    lingerMinutes: 0,
    title: null,
    own: [],
    replaces: null,
    record: null,
    listed: false,
    take: 0,
    reason: null,
  }));

/** A course with its lectures and a lab for group A, as letters are composed from it. */
export function makePlan(
  series = [seriesRow('Lecture'), seriesRow('Lab A', { group: 'A', pattern: weekly('friday') })],
): CoursePlan {
  const course = {
    id: 'c',
    code: 'TID-101',
    title: 'Tides & Streams',
    term,
    invitation: null,
    telephone: null,
    recordingPlan: null,
    limits: resolveAll([]),
  };
  return {
    course: course as unknown as CoursePlan['course'],
    series,
    sessions: series.flatMap(sessionRows).sort((a, b) => a.startsAt - b.startsAt),
    bells: [],
  };
}

export const deskOf = (plan: CoursePlan, more: Partial<Desk> = {}): Desk => ({
  plan,
  teachers: ['Maren Oduya'],
  origin: 'http://127.0.0.1:8210',
  organizer: 'classes@saltmarsh.example',
  now: NOW,
  styles: new Map(),
  notices: new Map(),
  ...more,
});

export const memberRow = (more: Partial<MemberRow> = {}): MemberRow => ({
  id: 'm1',
  courseId: 'c',
  personId: 'p1',
  role: 'student',
  group: null,
  name: 'Ana "Tide" Lanyon',
  email: 'ana@saltmarsh.example',
  zone: 'Atlantic/Azores',
  link: 'abcd2345efgh67892',
  pin: null,
  scope: null,
  capabilities: [],
  linkUntil: null,
  hasAccount: false,
  calendarSecret: null,
  quiet: [],
  came: null,
  alwaysIn: false,
  pronouns: null,
  ...more,
});

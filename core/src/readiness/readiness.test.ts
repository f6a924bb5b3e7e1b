import { COLLEGE_DOOR } from '../door/index';
import { COLLEGE_LIMITS } from '../limits/index';
import type { DatesPattern, MeetingPattern, MonthlyPattern, WeeklyPattern } from '../calendar/plan';
import { sessionsOf, type LaidSession } from '../calendar/index';
import { LIMIT_RULES } from './limitRules';
import { check, RULES, type Setup, type SetupPerson, type SetupSeries } from './index';
import { autumn, THURSDAY_TIMETABLE } from '../testing/autumn';

const term = autumn({ daySwaps: [THURSDAY_TIMETABLE] });
const weekly = (more: Partial<WeeklyPattern> = {}): WeeklyPattern => ({
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  days: [{ day: 'tuesday', start: '14:00', minutes: 60 }],
  ends: { by: 'term' },
  ...more,
});
type Change = (sessions: LaidSession[]) => LaidSession[];

function series(
  pattern: MeetingPattern | null = weekly(),
  more: Partial<SetupSeries> = {},
  change: Change = (s) => s,
): SetupSeries {
  const planned = pattern
    ? sessionsOf(term, pattern)
    : { sessions: [], skipped: [], minutes: 0, missing: 0, missingMinutes: 0 };
  const sessions = planned.sessions.map((s): LaidSession => ({
    ...s,
    id: s.date,
    lingerMinutes: pattern!.lingerMinutes,
    state: 'planned',
    title: null,
    own: [],
    replaces: null,
    record: null,
  }));
  return {
    id: 's',
    title: 'Lecture',
    kind: 'class',
    pattern,
    periods: [],
    expected: null,
    group: null,
    leads: [],
    published: true,
    planned,
    sessions: change(sessions),
    ...more,
  };
}
const person = (more: Partial<SetupPerson> = {}): SetupPerson => ({
  id: 'ana',
  name: 'Ana Lanyon',
  role: 'student',
  group: null,
  zone: 'America/Halifax',
  invitedAt: 1,
  linkAt: null,
  ...more,
});
const teacher = person({ id: 't', name: 'Maren Oduya', role: 'teacher', invitedAt: null });
const setup = (more: Partial<Setup> = {}): Setup => ({
  term,
  now: Date.UTC(2026, 7, 1),
  series: [series()],
  clashes: [],
  people: [teacher, person()],
  youngPupils: false,
  door: COLLEGE_DOOR,
  limits: COLLEGE_LIMITS,
  recording: { automatic: true, keepUntil: '2027-02-01', studentsWatch: true, studentsDownload: false },
  storage: { free: 1e12, forecast: 1e9 },
  ...more,
});
const rules = (more: Partial<Setup>) => check(setup(more)).map((f) => f.rule);
const dates = (...list: string[]): DatesPattern => ({
  kind: 'dates',
  every: 1,
  lingerMinutes: 0,
  start: '14:00',
  minutes: 60,
  dates: list,
  ends: { by: 'term' },
});
const monthly = (more: Partial<MonthlyPattern>): MonthlyPattern => ({
  kind: 'monthly',
  every: 1,
  lingerMinutes: 0,
  start: '14:00',
  minutes: 60,
  ends: { by: 'term' },
  ...more,
});
const first =
  (more: Partial<LaidSession>): Change =>
  ([s, ...rest]) => [{ ...s!, ...more }, ...rest];
const students = (n: number, more: Partial<SetupPerson> = {}) =>
  Array.from({ length: n }, (_, i) => person({ id: `p${i}`, name: `Tide Reader ${i}`, ...more }));

test('a sound set-up has no finding but that of the day swap it has', () => {
  expect(
    rules({ series: [series(weekly({ days: [{ day: 'friday', start: '14:00', minutes: 60 }] }))] }),
  ).toEqual([]);
});

// Each rule, and a set-up in which it speaks.
const SPEAKS: Record<string, Partial<Setup>> = {
  'no-series': { series: [] },
  'no-sessions': { series: [series(weekly({ firstDate: '2026-12-13' }))] },
  'period-unknown': { series: [series(weekly({ days: [{ day: 'tuesday', periods: ['P9'] }] }))] },
  'ends-before-it-begins': {
    series: [series(weekly({ firstDate: '2026-10-01', ends: { by: 'date', date: '2026-09-01' } }))],
  },
  clash: {
    clashes: [
      {
        series: 's',
        session: 'x',
        startsAt: Date.UTC(2026, 8, 8, 17),
        minutes: 30,
        other: 'MET-140 Lecture',
        people: [{ name: 'Ana Lanyon', teaches: false }],
      },
    ],
  },
  'fewer-than-expected': { series: [series(weekly(), { expected: 15 })] },
  'more-than-expected': { series: [series(weekly(), { expected: 10 })] },
  'does-not-fit': { series: [series(weekly({ ends: { by: 'count', count: 20 } }))] },
  'hours-not-reached': { series: [series(weekly({ ends: { by: 'hours', hours: 40 } }))] },
  'ends-after-term': { series: [series(weekly({ ends: { by: 'date', date: '2027-01-31' } }))] },
  'begins-before-term': { series: [series(weekly({ firstDate: '2026-08-01' }))] },
  'listed-date-skipped': { series: [series(dates('2026-10-06', '2026-10-13'))] },
  'month-without-date': { series: [series(monthly({ onDate: 31 }))] },
  'on-day-off': {
    series: [
      series(
        weekly(),
        {},
        first({
          startsAt: Date.UTC(2026, 9, 14, 17),
          endsAt: Date.UTC(2026, 9, 14, 18),
          state: 'moved',
          own: ['time'],
        }),
      ),
    ],
  },
  'off-pattern': {
    series: [series(weekly(), {}, (all) => all.map((s, i) => (i === 3 ? { ...s, date: '2026-09-23' } : s)))],
  },
  'outside-term': {
    series: [
      series(
        weekly(),
        {},
        first({
          startsAt: Date.UTC(2027, 0, 14, 17),
          endsAt: Date.UTC(2027, 0, 14, 18),
          state: 'moved',
          own: ['time'],
        }),
      ),
    ],
  },
  'unsociable-hour': { people: [teacher, person({ zone: 'Asia/Kathmandu' })] },
  'zone-drift': { people: [teacher, person({ zone: 'Europe/Lisbon' })] },
  'zone-shift': { people: [teacher, person({ zone: 'America/Port_of_Spain' })] },
  'follows-other-day': {
    series: [series(weekly({ days: [{ day: 'thursday', start: '14:00', minutes: 60 }] }))],
  },
  'very-long': { series: [series(weekly({ days: [{ day: 'tuesday', start: '08:00', minutes: 240 }] }))] },
  'linger-meets-next': {
    series: [
      series(weekly({ lingerMinutes: 20 })),
      series(weekly({ days: [{ day: 'tuesday', start: '15:10', minutes: 60 }] }), { id: 'b', title: 'Lab' }),
    ],
  },
  'never-held': { now: Date.UTC(2026, 8, 20) },
  'not-made-up': { series: [series(weekly(), {}, first({ state: 'cancelled' }))] },
  'still-draft': { series: [series(weekly(), { published: false })] },
  'no-students': { people: [teacher] },
  'no-teacher': { people: [person()] },
  'large-group': {
    series: [series(weekly(), { kind: 'group', group: 'A' })],
    people: [teacher, ...students(11, { group: 'A' })],
  },
  'group-without-slot': {
    series: [series(weekly(), { kind: 'group', group: 'A' })],
    people: [teacher, person({ group: 'B' })],
  },
  'student-without-group': { series: [series(weekly(), { kind: 'group', group: 'A' })] },
  'empty-group': {
    series: [series(weekly(), { kind: 'group', group: 'A' })],
    people: [teacher, person({ group: 'B' })],
  },
  'long-for-young': { youngPupils: true },
  'not-invited': { people: [teacher, person({ invitedAt: null })] },
  'nothing-published': { series: [series(weekly(), { published: false })] },
  'link-replaced': { people: [teacher, person({ invitedAt: 5, linkAt: 9 })] },
  'no-way-to-teacher': {
    limits: { ...COLLEGE_LIMITS, speak: 'closed', writeToClass: 'closed', writeToTeachers: 'closed' },
  },
  'microphones-open': { limits: { ...COLLEGE_LIMITS, speak: 'open' }, people: [teacher, ...students(50)] },
  'anyone-presents': { limits: { ...COLLEGE_LIMITS, present: 'open' } },
  'private-writing': { youngPupils: true, limits: { ...COLLEGE_LIMITS, writeToStudents: 'open' } },
  'unattended-door': { door: { ...COLLEGE_DOOR, teacherFirst: false } },
  'crowd-knocks': { door: { ...COLLEGE_DOOR, classList: 'knocks' }, people: [teacher, ...students(80)] },
  'nobody-lets-in': { door: { ...COLLEGE_DOOR, classList: 'knocks', teacherFirst: false } },
  'shut-to-late': { door: { ...COLLEGE_DOOR, late: 'not', lateMinutes: 0 } },
  'closes-at-once': { door: { ...COLLEGE_DOOR, aloneMinutes: 1 } },
  'late-door': { door: { ...COLLEGE_DOOR, opensMinutesBefore: 0 } },
  'no-recording-plan': { recording: null },
  'recording-off-in-some': { series: [series(weekly(), {}, first({ record: false }))] },
  'kept-too-short': {
    recording: { automatic: true, keepUntil: '2026-11-01', studentsWatch: true, studentsDownload: false },
  },
  'download-without-watching': {
    recording: { automatic: true, keepUntil: '2027-11-01', studentsWatch: false, studentsDownload: true },
  },
  'recorded-for-nobody': {
    recording: { automatic: true, keepUntil: '2027-11-01', studentsWatch: false, studentsDownload: false },
  },
  'storage-short': { storage: { free: 1e9, forecast: 1e12 } },
};

test('there are at least 25 rules, each with an id of its own and a set-up here in which it speaks', () => {
  expect(RULES.length).toBeGreaterThanOrEqual(25);
  // What rule sheets, run sheets and exceptions come to has its own test.
  const own = new Set(LIMIT_RULES.map((r) => r.id));
  const others = RULES.map((r) => r.id).filter((id) => !own.has(id));
  expect(others.sort()).toEqual(Object.keys(SPEAKS).sort());
});

test.each(Object.entries(SPEAKS))(
  '%s speaks where it should, in a sentence, and not in a sound set-up',
  (id, more) => {
    const found = check(setup(more)).filter((f) => f.rule === id);
    expect(found.length).toBeGreaterThan(0);
    for (const f of found) expect(f.text).toMatch(/^["A-Z0-9].*[.!]$/);
    expect(new Set(found.map((f) => f.id)).size).toBe(found.length);
    if (id !== 'follows-other-day') expect(rules({})).not.toContain(id);
  },
);

test('the gravest comes first; a clash of a teacher stops, one of students warns', () => {
  const clash = (teaches: boolean) => ({
    clashes: [{ ...SPEAKS.clash!.clashes![0]!, people: [{ name: 'M', teaches }] }],
  });
  expect(check(setup({ ...clash(true), recording: null }))[0]).toMatchObject({
    rule: 'clash',
    level: 'stops',
  });
  expect(check(setup(clash(false)))[0]).toMatchObject({ rule: 'clash', level: 'warns' });
});

test('a finding says what the teacher asked for and why it does not fit', () => {
  expect(
    check(setup(SPEAKS['fewer-than-expected'])).find((f) => f.rule === 'fewer-than-expected')!.text,
  ).toBe('Lecture: 15 sessions expected, 14 fit: Tue 13 Oct is Reading week.');
});

test('fixes are edits that the plan takes, or lead to where the decision is made', () => {
  const fixOf = (id: string) => check(setup(SPEAKS[id]!)).find((f) => f.rule === id)!.fix!.fix;
  expect(fixOf('more-than-expected')).toMatchObject({
    do: 'edit',
    edit: { series: { pattern: { ends: { by: 'count', count: 10 } } } },
  });
  expect(fixOf('student-without-group')).toEqual({
    do: 'edit',
    edit: { edit: 'move-to-group', member: 'ana', group: 'A' },
  });
  expect(fixOf('long-for-young')).toMatchObject({
    edit: { scope: 'all', change: { do: 'lengthen', minutes: 30 } },
  });
  expect(fixOf('kept-too-short')).toEqual({ do: 'recording', plan: { keepUntil: '2027-01-12' } });
  expect(fixOf('not-made-up')).toEqual({ do: 'go', to: 'plan/make-up/2026-09-01' });
});

test('a session restored onto what is a day off by now is named', () => {
  const date = '2026-10-13';
  const restored = (all: LaidSession[]) => [
    ...all,
    { ...all[0]!, id: date, date, startsAt: Date.UTC(2026, 9, 13, 17), endsAt: Date.UTC(2026, 9, 13, 18) },
  ];
  const found = check(setup({ series: [series(weekly(), {}, restored)] })).filter((f) => f.session === date);
  expect(found.map((f) => f.rule)).toContain('on-day-off');
  expect(found[0]!.text).toContain('Reading week');
});

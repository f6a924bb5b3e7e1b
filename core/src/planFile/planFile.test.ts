import fc from 'fast-check';
import { readCalendar } from '../calendar/icsRead';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { planCsv, planIcs, planOut, readPlanFile, type PlanFile } from './index';
import { many } from '../testing/many';

const file = {
  term: {
    name: 'Autumn',
    zone: 'America/Halifax',
    firstDay: '2026-08-31',
    lastDay: '2026-12-13',
    daysOff: [{ from: '2026-10-12', to: '2026-10-18', name: 'Reading week' }],
    daySwaps: [{ date: '2026-11-18', follows: 'thursday', name: 'Thursday timetable' }],
  },
  bellTimes: {
    periods: [
      { name: 'P1', start: '08:45', end: '09:30' },
      { name: 'P2', start: '09:35', end: '10:20' },
    ],
  },
  series: [
    {
      id: 'lecture',
      title: 'Lecture',
      teacher: 'maren',
      people: ['ana', 'ben'],
      pattern: {
        kind: 'weekly',
        every: 1,
        weeks: 'teaching',
        days: [
          { day: 'tuesday', start: '18:30', minutes: 80 },
          { day: 'thursday', periods: ['P1', 'P2'] },
        ],
        lingerMinutes: 10,
        ends: { by: 'count', count: 24 },
      },
    },
    {
      id: 'clinic',
      title: 'Clinic',
      people: ['ben'],
      pattern: {
        kind: 'dates',
        start: '19:00',
        minutes: 30,
        dates: ['2026-10-06', { date: '2026-10-08', start: '09:00', minutes: 20 }],
        ends: { by: 'term' },
      },
    },
  ],
};
const planFrom = (value: unknown): PlanFile => {
  const read = readPlanFile(JSON.stringify(value));
  if ('faults' in read) throw new Error(read.faults.join('\n'));
  return read.plan;
};

test('sessions come out by instant, then series, local and in UTC, with their teaching week', () => {
  const { sessions, skipped, clashes } = planOut(planFrom(file), true);
  expect(sessions).toHaveLength(26);
  expect(sessions[0]).toEqual({
    series: 'lecture',
    number: 1,
    date: '2026-09-01',
    start: '18:30',
    end: '19:50',
    zone: 'America/Halifax',
    startsAt: '2026-09-01T21:30:00Z',
    endsAt: '2026-09-01T22:50:00Z',
    week: 1,
  });
  expect(sessions.map((s) => s.startsAt)).toEqual(sessions.map((s) => s.startsAt).sort());
  expect(skipped.map((s) => s.date)).toEqual(['2026-10-13', '2026-10-15']);
  expect(clashes).toEqual([
    {
      a: { series: 'lecture', startsAt: '2026-10-06T21:30:00Z' },
      b: { series: 'clinic', startsAt: '2026-10-06T22:00:00Z' },
      minutes: 30,
      people: ['ben'],
    },
    {
      a: { series: 'lecture', startsAt: '2026-10-08T11:45:00Z' },
      b: { series: 'clinic', startsAt: '2026-10-08T12:00:00Z' },
      minutes: 20,
      people: ['ben'],
    },
  ]);
  expect(planOut(planFrom(file), false).clashes).toBeUndefined();
});

test('findings name rule, level, series and say it', () => {
  const { findings } = planOut(
    planFrom({
      ...file,
      series: [
        { ...file.series[0], pattern: { ...file.series[0]!.pattern, ends: { by: 'count', count: 40 } } },
      ],
    }),
    false,
  );
  expect(findings.find((f) => f.rule === 'does-not-fit')).toMatchObject({
    level: 'warns',
    series: 'lecture',
  });
  expect(planOut(planFrom({ ...file, series: [] }), false).findings).toMatchObject([
    { rule: 'no-series', level: 'stops', series: null },
  ]);
});

test('what has a default may be left out', () => {
  const { sessions } = planOut(
    planFrom({
      term: { name: 'T', zone: 'UTC', firstDay: '2026-09-01', lastDay: '2026-09-07' },
      series: [{ id: 'a', title: 'A', pattern: { kind: 'daily', start: '10:00', minutes: 30 } }],
    }),
    false,
  );
  expect(sessions).toHaveLength(7);
});

const broken = (change: (plan: ReturnType<typeof structuredClone<typeof file>>) => void) => {
  const plan = structuredClone(file);
  change(plan);
  const read = readPlanFile(JSON.stringify(plan));
  return 'faults' in read ? read.faults : [];
};

// eslint-disable-next-line @typescript-eslint/no-explicit-any
test.each<[string, (plan: any) => void, string]>([
  ['no zone of that name', (p) => (p.term.zone = 'Halifax'), '$.term.zone: This time zone is not known.'],
  [
    'a term that ends first',
    (p) => (p.term.lastDay = '2026-01-01'),
    '$.term.lastDay: The term ends before it begins.',
  ],
  [
    'a day off that ends first',
    (p) => (p.term.daysOff[0].to = '2026-10-01'),
    '$.term.daysOff[0].to: It ends before',
  ],
  [
    'a swap to no weekday',
    (p) => (p.term.daySwaps[0].follows = 'someday'),
    '$.term.daySwaps[0].follows: Give one of monday',
  ],
  ['a missing title', (p) => delete p.series[0].title, '$.series[0].title: This is missing.'],
  ['an id twice', (p) => (p.series[1].id = 'lecture'), '$.series[1].id: Each series has an id of its own.'],
  ['an unknown field', (p) => (p.series[0].colour = 'red'), '$.series[0].colour: There is no such field.'],
  ['no kind', (p) => (p.series[0].pattern.kind = 'yearly'), '$.series[0].pattern.kind: Give "kind" as'],
  [
    'an hour that is none',
    (p) => (p.series[0].pattern.days[0].start = '25:00'),
    '$.series[0].pattern.days[0].start: Give a time',
  ],
  [
    'a period that is none',
    (p) => (p.series[0].pattern.days[1].periods = ['P9']),
    '$.series[0].pattern.days[1].periods: There is no period "P9"',
  ],
  [
    'periods without bell times',
    (p) => delete p.bellTimes,
    '$.series[0].pattern.days[1].periods: There is no period',
  ],
  [
    'a weekday twice',
    (p) => (p.series[0].pattern.days[1].day = 'tuesday'),
    '$.series[0].pattern.days: Each weekday',
  ],
  [
    'an end by nothing',
    (p) => (p.series[0].pattern.ends = { by: 'mood' }),
    '$.series[0].pattern.ends.by: Give "by"',
  ],
  [
    'no date that is one',
    (p) => (p.series[1].pattern.dates[0] = 'soon'),
    '$.series[1].pattern.dates[0]: Give a date',
  ],
  [
    'a date without a length',
    (p) => delete p.series[1].pattern.minutes,
    '$.series[1].pattern.dates[0]: This date has no length',
  ],
  [
    'both ways of a month',
    (p) =>
      (p.series[1].pattern = {
        kind: 'monthly',
        start: '10:00',
        minutes: 5,
        onDate: 1,
        onWeekday: { nth: 1, day: 'monday' },
      }),
    '$.series[1].pattern.onDate: Give either',
  ],
])('a file with %s is refused at its JSON path', (_name, change, fault) => {
  const faults = broken(change);
  expect(faults.some((f) => f.startsWith(fault))).toBe(true);
});

test('what is not JSON, and what is JSON but no plan, is refused in words', () => {
  for (const text of ['', '{', '[]', '3', 'null', '"plan"', '{}']) {
    const read = readPlanFile(text);
    expect('faults' in read && read.faults.every((f) => f.startsWith('$'))).toBe(true);
  }
});

const anyPlan = fc
  .tuple(anyTerm, anyPeriods, fc.array(anyPattern, { minLength: 1, maxLength: 3 }))
  .map(([term, periods, patterns]) => ({
    term,
    bellTimes: { periods },
    series: patterns.map((pattern, i) => ({ id: `s${i}`, title: `Series ${i}`, people: ['a'], pattern })),
  }));

test('any plan is read; JSON, CSV and the calendar say the same instants', () => {
  fc.assert(
    fc.property(anyPlan, (value) => {
      const plan = planFrom(value);
      const { sessions } = planOut(plan, true);
      const lines = planCsv(plan).trim().split('\r\n').slice(1);
      expect(lines.map((l) => l.split(',')[6])).toEqual(sessions.map((s) => s.startsAt));
      const read = readCalendar(planIcs(plan, 0), plan.term.zone, '2025-12-01', '2029-01-01');
      const instants = read.events.flatMap((e) => e.meetings.map((m) => `${e.uid} ${m.startsAt}`)).sort();
      expect(instants).toEqual(
        sessions.map((s) => `${s.series}@nimble-bell ${Date.parse(s.startsAt)}`).sort(),
      );
    }),
    { numRuns: 150 },
  );
});

test('5,000 files with something wrong in them: no crash, each fault with a path', () => {
  const anything = fc.oneof(
    fc.constant(null),
    fc.string(),
    fc.integer(),
    fc.constant([]),
    fc.constant({}),
    fc.boolean(),
  );
  const paths = [
    'term',
    'term.zone',
    'term.firstDay',
    'term.daysOff',
    'series',
    'series.0.id',
    'series.0.pattern',
    'series.0.pattern.days',
    'series.0.pattern.days.0',
    'series.0.pattern.ends',
    'series.1.pattern.dates.1',
    'bellTimes.periods.0',
  ];
  fc.assert(
    fc.property(fc.constantFrom(...paths), anything, fc.boolean(), (path, value, text) => {
      const plan = structuredClone(file) as unknown as Record<string, unknown>;
      const keys = path.split('.');
      let at = plan as never as Record<string, Record<string, unknown>>;
      for (const key of keys.slice(0, -1)) at = at[key] as never;
      (at as Record<string, unknown>)[keys.at(-1)!] = value;
      const read = readPlanFile(text ? JSON.stringify(plan) : JSON.stringify(plan).slice(0, 40));
      if ('faults' in read) for (const fault of read.faults) expect(fault).toMatch(/^\$[^:]*: .+\.$/);
      else expect(planOut(read.plan, true).sessions).toBeDefined();
    }),
    { numRuns: many(5000) },
  );
}, 60_000);

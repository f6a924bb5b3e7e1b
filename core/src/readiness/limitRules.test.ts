import { COLLEGE_DOOR } from '../door/index';
import { COLLEGE_LIMITS, SHIPPED_SHEETS, type Limits } from '../limits/index';
import { noSettings, withValues, type Segment } from '../settings/index';
import { autumn } from '../testing/autumn';
import { check, type Setup, type SetupException, type SetupPlace } from './index';
import { LIMIT_RULES } from './limitRules';

const term = autumn({});
const sheet = (id: string) => SHIPPED_SHEETS.find((s) => s.id === id)!;
const part = (more: Partial<Segment> = {}): Segment => ({
  ...{ title: 'Lecture', minutes: 40, sheet: null, limits: {}, recording: null, note: '' },
  ...more,
});
const place = (more: Partial<SetupPlace> = {}): SetupPlace => ({
  ...{ layer: 'series', id: 's', title: 'Lecture', minutes: 80, sheet: null },
  limits: { ...COLLEGE_LIMITS, ...sheet('lecture').limits } as Limits,
  said: {},
  segments: [part(), part({ title: 'Questions' })],
  ...more,
});
const limits = (more: Partial<Limits>): Limits => ({ ...place().limits, ...more });
const exception = (more: Partial<SetupException> = {}): SetupException => ({
  ...{ id: 'e', name: 'Ana Lanyon', capability: 'present', state: 'open' },
  until: Date.UTC(2026, 9, 9),
  ...more,
});
const pupils = Array.from({ length: 50 }, (_, i) => ({
  ...{ id: `p${i}`, name: `Pupil ${i}`, role: 'student' as const, group: null },
  ...{ zone: 'America/Halifax', invitedAt: 1, linkAt: null },
}));
const MUTE = { speak: 'closed', writeToClass: 'closed', writeToTeachers: 'closed' } as const;

const setup = (places: SetupPlace[], more: Partial<Setup> = {}, exceptions = [exception()]): Setup => ({
  ...{ term, now: 1, series: [], clashes: [], people: pupils, youngPupils: false },
  ...{ door: { ...COLLEGE_DOOR, teacherFirst: true, opensMinutesBefore: 10 }, limits: COLLEGE_LIMITS },
  recording: { automatic: true, keepUntil: term.lastDay, studentsWatch: true, studentsDownload: false },
  storage: null,
  rules: { places, exceptions },
  ...more,
});
const alone = (one: Partial<SetupPlace>, more: Partial<Setup> = {}) => setup([place(one)], more);
const except = (one: Partial<SetupException>) => setup([place()], {}, [exception(one)]);
const lesson = (id: string, startsAt: number, minutes = 60) => ({
  ...{ id, date: '2026-10-06', startsAt, endsAt: startsAt + minutes * 60_000, minutes, number: 1 },
  ...{ lingerMinutes: 0, state: 'planned' as const, title: null, own: [], replaces: null, record: null },
});
const series = (id: string, at: number) =>
  ({
    ...{ id, title: id, kind: 'class', pattern: null, periods: [], expected: null, group: null, leads: [] },
    ...{ published: true, planned: { sessions: [], skipped: [], minutes: 0, missing: 0, missingMinutes: 0 } },
    sessions: [lesson(`${id}1`, at)],
  }) as Setup['series'][number];
const HOUR = 3_600_000;

/** A set-up in which each rule finds something, once. */
const FOUND: Record<string, Setup> = {
  'run-sheet-too-long': alone({ minutes: 60 }),
  'run-sheet-too-short': alone({ minutes: 120 }),
  'part-too-short': alone({ segments: [part({ minutes: 79 }), part({ minutes: 1 })] }),
  'mute-in-part': alone({ segments: [part({ minutes: 80, limits: MUTE })] }),
  'mute-in-place': alone({ limits: limits(MUTE), segments: null }),
  'paused-for-good': alone({ segments: [part({ recording: 'paused' }), part()] }),
  'parts-unrecorded': alone(
    { segments: [part({ recording: 'on' }), part()] },
    { recording: { ...setup([]).recording!, automatic: false } },
  ),
  'open-examination': alone({
    sheet: sheet('examination'),
    limits: limits({ writeToStudents: 'open' }),
    said: withValues(noSettings(), 'limits', sheet('examination').limits, 'm', 1).limits,
  }),
  'open-examination-part': alone({
    limits: limits({ writeToStudents: 'byHand' }),
    segments: [part({ sheet: 'examination', minutes: 80 })],
  }),
  'hardly-the-sheet': alone({ sheet: sheet('group-work') }),
  'microphones-open-there': alone({ limits: limits({ speak: 'open' }) }),
  'young-private-writing': alone(
    { segments: [part({ minutes: 80, limits: { writeToStudents: 'open' } })] },
    { youngPupils: true },
  ),
  'exception-without-end': except({ until: null }),
  'exception-beyond-term': except({ until: Date.UTC(2027, 5, 1) }),
  'exception-for-nothing': except({ state: 'closed' }),
  'two-doors-one-teacher': setup([], {
    clashes: [
      {
        ...{ series: 's', session: 'x', startsAt: 1, minutes: 60, other: 'MET-140 Lecture' },
        people: [{ name: 'Maren Oduya', teaches: true }],
      },
    ],
  }),
  'door-over-class': setup([], { series: [series('A', 0), series('B', HOUR)] }),
};
const OURS = new Set(LIMIT_RULES.map((r) => r.id));
const found = (one: Setup) =>
  check(one)
    .map((f) => f.rule)
    .filter((rule) => OURS.has(rule));

test.each(LIMIT_RULES.map((r) => r.id))('%s is found where it is so, alone, and leads somewhere', (id) => {
  expect(found(FOUND[id]!)).toEqual([id]);
  const [finding] = check(FOUND[id]!).filter((f) => f.rule === id);
  expect(finding!.fix).toBeDefined();
  expect(finding!.text).toMatch(/^[A-Z].*\.$/);
});

test('where all is well none of them says a word, and nothing is known nothing is said', () => {
  expect(found(setup([place()]))).toEqual([]);
  expect(found(setup([], { rules: null, door: null }))).toEqual([]);
  expect(Object.keys(FOUND).sort()).toEqual([...OURS].sort());
});

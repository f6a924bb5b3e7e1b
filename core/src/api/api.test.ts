import fc from 'fast-check';
import { RoomCommand } from '../room/index';
import {
  LimitsInput,
  MeetingPattern,
  PAGE_MESSAGES,
  RecordingPlan,
  SeriesInput,
  Stroke,
  Term,
} from './index';

const term = {
  name: 'Autumn',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daysOff: [],
  daySwaps: [],
};
const faults = (
  schema: { safeParse: (value: unknown) => { success: boolean; error?: { issues: { message: string }[] } } },
  value: unknown,
) => schema.safeParse(value).error?.issues.map((i) => i.message) ?? [];

test('a term that ends before it begins, or lies in no zone, is refused in words', () => {
  expect(faults(Term, term)).toEqual([]);
  expect(faults(Term, { ...term, lastDay: '2026-08-01' })).toEqual(['The term ends before it begins.']);
  expect(faults(Term, { ...term, zone: 'Sea/Side' })[0]).toContain('This time zone is not known.');
});

test('a pattern has its defaults, and its faults their words', () => {
  const days = [{ day: 'monday', start: '08:45', minutes: 45 }];
  expect(MeetingPattern.parse({ kind: 'weekly', days, ends: { by: 'term' } })).toMatchObject({
    every: 1,
    lingerMinutes: 0,
  });
  expect(faults(MeetingPattern, { kind: 'weekly', days: [], ends: { by: 'term' } })).toContain(
    'Choose at least one weekday.',
  );
  expect(faults(MeetingPattern, { kind: 'weekly', days, ends: { by: 'count', count: 0 } })).not.toEqual([]);
  expect(
    faults(SeriesInput, { title: 'x'.repeat(91), pattern: { kind: 'weekly', days, ends: { by: 'term' } } }),
  ).toHaveLength(1);
});

test('limits may name some capabilities, each known, in a state that makes sense of it', () => {
  const limits = (some: object) => faults(LimitsInput, { limits: some });
  expect(limits({ speak: 'open' })).toEqual([]);
  expect(limits({ speak: 'ajar' })).toHaveLength(1);
  expect(limits({ fly: 'open' })).toHaveLength(1);
  expect(limits({ seeNames: 'byHand' })).toEqual(['This cannot be by hand.']);
});

test('a message is trimmed, and neither empty nor endless', () => {
  const say = (text: string) => RoomCommand.safeParse({ type: 'say', addressee: { to: 'class' }, text });
  expect(say('  hello  ').data).toMatchObject({ text: 'hello' });
  expect(say('   ').success).toBe(false);
  expect(say('x'.repeat(4001)).success).toBe(false);
});

test('a stroke stays on the board', () => {
  expect(Stroke.safeParse({ points: [0, 1], colour: 'ink' }).success).toBe(true);
  for (const points of [[], [0.5], [1.2, 0], [-0.1, 0], Array(4001).fill(0)])
    expect(Stroke.safeParse({ points, colour: 'ink' }).success && points.length > 1).toBe(false);
  expect(Stroke.safeParse({ points: [0, 0], colour: 'glitter' }).success).toBe(false);
});

test('a recording plan has a date', () => {
  const plan = { automatic: true, keepUntil: '2026-02-31', studentsWatch: true, studentsDownload: false };
  expect(faults(RecordingPlan, plan)).toEqual(['Give a date such as 2026-10-06.']);
});

test('whatever is sent, it is read or refused, and never throws', () => {
  fc.assert(
    fc.property(fc.anything(), (value) => {
      for (const schema of [...Object.values(PAGE_MESSAGES), MeetingPattern, Term]) {
        const result = schema.safeParse(value);
        if (!result.success) expect(result.error.issues.length).toBeGreaterThan(0);
      }
    }),
    { numRuns: 500 },
  );
});

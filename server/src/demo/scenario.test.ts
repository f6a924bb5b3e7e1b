import { sessionsOf, termDays, toEpochDay, toWall, weekOf } from '@nimble-bell/core/calendar';
import { inventedName } from '@nimble-bell/core/rehearsal';
import { demoCourses, demoTerm } from './scenario';

const INSTANTS = [
  '2026-10-06T21:05:00Z',
  '2026-11-24T03:40:00Z',
  '2027-03-14T06:15:00Z',
  '2026-12-31T23:59:00Z',
  '2027-01-04T12:00:00Z',
];

test.each(INSTANTS)(
  'laid around %s, the demo is in teaching week 6 and a lecture starts within the hour',
  (iso) => {
    const instant = Date.parse(iso);
    const term = demoTerm(instant);
    const today = toWall(term.zone, instant).day;
    expect(weekOf(termDays(term), today)?.number).toBe(6);
    const lecture = demoCourses(instant)[0]!.series[0]!;
    const next = sessionsOf(term, lecture.pattern!).sessions.find((s) => s.startsAt > instant)!;
    expect(next.startsAt - instant).toBeLessThanOrEqual(60 * 60_000);
    expect(toEpochDay(next.date)).toBeGreaterThanOrEqual(today);
  },
);

test('invented people have names of their own', () => {
  const names = Array.from({ length: 130 }, (_, i) => inventedName(i));
  expect(new Set(names).size).toBe(names.length);
});

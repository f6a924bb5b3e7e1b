import fc from 'fast-check';
import type { Term, WeeklyPattern } from './plan';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { carry } from './carry';
import { sessionsOf } from './sessions';
import { autumn as autumnTerm } from '../testing/autumn';

const autumn = autumnTerm();
const spring: Term = {
  name: 'Spring',
  zone: 'America/Halifax',
  firstDay: '2027-01-04',
  lastDay: '2027-04-04',
  daysOff: [
    { from: '2027-01-19', to: '2027-01-19', name: 'Storm Day' },
    { from: '2027-02-08', to: '2027-02-12', name: 'Ice week' },
  ],
  daySwaps: [],
};
const tuesdays: WeeklyPattern = {
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
  ends: { by: 'term' },
};

test('sessions go by teaching week and weekday; what falls on a day off takes the next free day of its week', () => {
  const { differences } = carry(autumn, spring, tuesdays);
  const by = (outcome: string) => differences.filter((d) => d.outcome === outcome);
  expect(differences[0]).toMatchObject({
    outcome: 'fits',
    was: { date: '2026-09-01', week: 1 },
    date: '2027-01-05',
  });
  expect(by('moved')).toMatchObject([
    { was: { date: '2026-09-15', week: 3 }, date: '2027-01-20', why: 'Tue 19 Jan is Storm Day.' },
  ]);
  // Fourteen Tuesdays were taught; the spring has twelve numbered weeks.
  expect(by('no place').map((d) => d.was!.week)).toEqual([13, 14]);
  expect(by('no place')[0]!.why).toContain('week 13');
});

test('what the new term adds is said, and dates of its own are carried', () => {
  const short = carry(spring, autumn, tuesdays);
  expect(short.differences.filter((d) => d.outcome === 'extra').length).toBe(3);
  const until = carry(autumn, spring, {
    ...tuesdays,
    firstDate: '2026-09-08',
    ends: { by: 'date', date: '2026-10-06' },
  });
  expect(until.pattern).toMatchObject({ firstDate: '2027-01-12', ends: { by: 'date', date: '2027-02-16' } });
});

test('every old session has one line, a fit is a session of the carried pattern, nothing is proposed on a day off', () => {
  fc.assert(
    fc.property(anyTerm, anyTerm, anyPattern, anyPeriods, (from, to, pattern, periods) => {
      const { pattern: carried, differences } = carry(from, to, pattern, periods);
      const old = sessionsOf(from, pattern, undefined, periods).sessions.map((s) => s.date);
      expect(differences.filter((d) => d.was).map((d) => d.was!.date)).toEqual(old);
      const fresh = new Set(sessionsOf(to, carried, undefined, periods).sessions.map((s) => s.date));
      for (const d of differences) {
        if (d.outcome === 'extra') expect(fresh.has(d.date!)).toBe(true);
        if (d.date === null) continue;
        expect(d.date >= to.firstDay && d.date <= to.lastDay).toBe(true);
        expect(to.daysOff.some((o) => o.from <= d.date! && d.date! <= o.to)).toBe(false);
      }
    }),
    { numRuns: 300 },
  );
});

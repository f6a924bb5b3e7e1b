import fc from 'fast-check';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { sessionsOf, toClock, toEpochDay, toInstant, toWall } from './index';
import { firstDateWords, movedAlike, ownTimesWords, timesWords } from './ownTimes';

const HOME = 'America/Halifax';
const at = (date: string, clock: string, minutes = 80) => ({
  startsAt: toInstant(HOME, toEpochDay(date), +clock.slice(0, 2) * 60 + +clock.slice(3)),
  minutes,
});
const AUTUMN = [
  '2026-10-13',
  '2026-10-15',
  '2026-10-20',
  '2026-10-22',
  '2026-10-27',
  '2026-10-29',
  '2026-11-03',
  '2026-11-05',
];
const lectures = AUTUMN.map((d) => at(d, '18:30'));

test.each<[string, string, string | null]>([
  ['the clock at home', HOME, null],
  ['another name of it', 'America/Moncton', null],
  [
    'clocks that change a week earlier',
    'Atlantic/Azores',
    'Tue and Thu 21:30–22:50, on Tue 27 Oct and Thu 29 Oct 20:30–21:50, your time in Azores (Tue and Thu 18:30–19:50 in Halifax)',
  ],
  [
    'the day after, and no change of clocks',
    'Asia/Kathmandu',
    'Wed and Fri 03:15–04:35, from Wed 4 Nov 04:15–05:35, your time in Kathmandu (Tue and Thu 18:30–19:50 in Halifax)',
  ],
])('one’s own time first: %s', (_name, zone, words) => {
  expect(ownTimesWords(lectures, zone, HOME)).toBe(words);
});

test('what stands alone is no time of a series; two times of day are two', () => {
  const other = [...lectures, at('2026-10-16', '09:00')];
  expect(timesWords(other, HOME, HOME)).toBe('Tue and Thu 18:30–19:50');
  const both = [...lectures, at('2026-10-16', '09:00'), at('2026-10-23', '09:00')];
  expect(timesWords(both, HOME, HOME)).toBe('Tue and Thu 18:30–19:50; Fri 09:00–10:20');
  expect(timesWords([at('2026-10-16', '09:00')], HOME, HOME)).toBe('Fri 09:00–10:20');
  expect(firstDateWords(lectures, 'Asia/Kathmandu')).toBe('Wed 14 Oct');
});

test('every session’s own time is in the words, whatever the plan and the zone', () => {
  const zones = fc.constantFrom(
    'Atlantic/Azores',
    'Asia/Kathmandu',
    'Pacific/Auckland',
    'America/Halifax',
    'UTC',
  );
  fc.assert(
    fc.property(anyTerm, anyPattern, anyPeriods, zones, (term, pattern, periods, zone) => {
      const { sessions } = sessionsOf(term, pattern, undefined, periods);
      if (!sessions.length) return;
      const words = timesWords(sessions, zone, term.zone);
      const hours = new Map<string, number>();
      const home = (s: (typeof sessions)[0]) => {
        const wall = toWall(term.zone, s.startsAt);
        return `${wall.day % 7} ${wall.minutes} ${s.minutes}`;
      };
      for (const s of sessions) hours.set(home(s), (hours.get(home(s)) ?? 0) + 1);
      const repeats = [...hours.values()].some((n) => n > 1);
      for (const s of sessions)
        if (!repeats || hours.get(home(s))! > 1)
          expect(words).toContain(toClock(toWall(zone, s.startsAt).minutes));
    }),
  );
});

test('sessions that moved alike are one, from three on', () => {
  const moved = lectures.slice(0, 6).map((was, i) => ({
    was,
    is:
      i % 2
        ? was
        : at(
            AUTUMN[i]!.replace(/\d\d$/, (d) => String(+d + 1)),
            '12:00',
          ),
  }));
  const only = moved.filter((m) => m.is !== m.was);
  expect(movedAlike(only, HOME).alike).toEqual([only]);
  expect(movedAlike(only.slice(0, 2), HOME)).toEqual({ alike: [], single: only.slice(0, 2) });
});

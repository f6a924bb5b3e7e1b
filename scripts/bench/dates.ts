import { performance } from 'node:perf_hooks';
import rrule from 'rrule';
import type { Term } from '@nimble-bell/core/api';
import {
  sessionsOf,
  termDays,
  toEpochDay,
  toLocalDate,
  toMinutes,
  weekdayIndex,
  WEEKDAYS,
} from '@nimble-bell/core/calendar';
import { ms, percentile, type Figure } from './table';

const { RRule, RRuleSet } = rrule;
const SERIES = 1000;
const ZONE = 'America/Halifax';

const term: Term = {
  name: 'Bench',
  zone: ZONE,
  firstDay: '2026-08-31',
  lastDay: '2026-12-20',
  daysOff: [
    { from: '2026-09-25', to: '2026-09-28', name: 'Long weekend' },
    { from: '2026-10-12', to: '2026-10-18', name: 'Reading week' },
  ],
  daySwaps: [],
};

const patterns = Array.from({ length: SERIES }, (_, i) => {
  const start = `${String(8 + (i % 12)).padStart(2, '0')}:${i % 2 ? '30' : '00'}`;
  const days = [i % 5, (i + 2) % 5].map((d) => ({ day: WEEKDAYS[d]!, start, minutes: 50 + (i % 4) * 10 }));
  return { kind: 'weekly' as const, every: 1, lingerMinutes: 0, ends: { by: 'term' as const }, days };
});

function ours(): number[][] {
  const days = termDays(term);
  return patterns.map((p) => sessionsOf(term, p, days).sessions.map((s) => s.startsAt));
}

/** The same work by the `rrule` package: a weekly rule in the zone, a date left out for each day off it would fall on. */
function peer(tzid: string | null): Date[][] {
  const first = toEpochDay(term.firstDay);
  return patterns.map((p) => {
    const minutes = toMinutes(p.days[0]!.start);
    const weekdays = p.days.map((d) => weekdayIndex(d.day));
    const at = (day: number) => new Date(day * 86_400_000 + minutes * 60_000);
    const set = new RRuleSet();
    set.rrule(
      new RRule({
        freq: RRule.WEEKLY,
        byweekday: weekdays,
        dtstart: at(first),
        until: at(toEpochDay(term.lastDay)),
        ...(tzid ? { tzid } : {}),
      }),
    );
    for (const off of term.daysOff)
      for (let day = toEpochDay(off.from); day <= toEpochDay(off.to); day++)
        if (weekdays.includes((day + 3) % 7)) set.exdate(at(day));
    return set.all();
  });
}

function timed(work: () => unknown, runs: number): number {
  const times: number[] = [];
  work();
  for (let i = 0; i < runs; i++) {
    const began = performance.now();
    work();
    times.push(performance.now() - began);
  }
  return percentile(times, 0.5);
}

export function dates(): Figure[] {
  const counted = [ours(), peer(null)].map((lists) => lists.reduce((n, list) => n + list.length, 0));
  if (counted[0] !== counted[1])
    throw new Error(`Not the same work: ${counted.join(' and ')} dates, e.g. ${toLocalDate(0)}.`);
  const own = timed(ours, 25);
  const zoned = timed(() => peer(ZONE), 3);
  const utc = timed(() => peer(null), 5);
  const what = `dates of ${SERIES} weekly series, 16 weeks, ${counted[0]} dates`;
  const row = (name: string, theirs: number, wanted: string): Figure => ({
    what,
    ours: ms(own),
    peer: name,
    theirs: ms(theirs),
    ratio: `${(theirs / own).toFixed(0)} to 1`,
    wanted,
  });
  return [row('rrule with tzid', zoned, 'at least 250 to 1'), row('rrule in UTC', utc, 'at least 5 to 1')];
}

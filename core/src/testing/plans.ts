import fc from 'fast-check';
import { Ends, type DatesPattern, type MeetingPattern, type Period, type Term } from '../calendar/plan';
import { toClock, toEpochDay, toLocalDate, WEEKDAYS } from '../calendar/localDate';

/** Half-hour and 45-minute offsets, a 30-minute change, changes at midnight, one without any. */
export const ZONES = [
  'America/Halifax',
  'Europe/Lisbon',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'America/St_Johns',
  'Atlantic/Azores',
  'Asia/Beirut',
  'America/Port_of_Spain',
  'Pacific/Apia',
  'Australia/Adelaide',
  'Pacific/Chatham',
];
export const anyZone = fc.constantFrom(...ZONES);
export const anyDay = fc.integer({ min: toEpochDay('2020-01-01'), max: toEpochDay('2030-12-31') });
const anyWeekday = fc.constantFrom(...WEEKDAYS);
const FIRST = toEpochDay('2026-01-01');
const LAST = toEpochDay('2027-12-31');
const nearDate = fc.integer({ min: FIRST, max: LAST + 150 }).map(toLocalDate);

export const anyTerm: fc.Arbitrary<Term> = fc
  .record({
    first: fc.integer({ min: FIRST, max: LAST }),
    length: fc.integer({ min: 0, max: 150 }),
    off: fc.array(fc.tuple(fc.nat(150), fc.nat(8)), { maxLength: 5 }),
    swaps: fc.uniqueArray(fc.tuple(fc.nat(150), anyWeekday), { maxLength: 3, selector: ([d]) => d }),
    zone: anyZone,
  })
  .map(({ first, length, off, swaps, zone }) => ({
    name: 'Any',
    zone,
    firstDay: toLocalDate(first),
    lastDay: toLocalDate(first + length),
    daysOff: off.map(([at, more]) => ({
      from: toLocalDate(first + at),
      to: toLocalDate(first + at + more),
      name: 'Off',
    })),
    daySwaps: swaps.map(([at, follows]) => ({ date: toLocalDate(first + at), follows, name: 'Swap' })),
  }));

/** Times round the clock, the hours of clock changes often among them. */
export const anyStart = fc
  .oneof(fc.integer({ min: 0, max: 1439 }), fc.integer({ min: 0, max: 240 }))
  .map(toClock);
const anyMinutes = fc.integer({ min: 1, max: 240 });
const time = fc.record({ start: anyStart, minutes: anyMinutes });

const anyEnds: fc.Arbitrary<Ends> = fc.oneof(
  fc.constant({ by: 'term' as const }),
  fc.record({ by: fc.constant('count' as const), count: fc.integer({ min: 1, max: 40 }) }),
  fc.record({ by: fc.constant('hours' as const), hours: fc.integer({ min: 1, max: 80 }).map((n) => n / 2) }),
  fc.record({ by: fc.constant('date' as const), date: nearDate }),
);
const common = {
  every: fc.integer({ min: 1, max: 4 }),
  lingerMinutes: fc.constantFrom(0, 10),
  ends: anyEnds,
};
/** With or without a first date. */
const maybeFrom = <T extends object>(pattern: fc.Arbitrary<T>) =>
  fc
    .tuple(pattern, fc.option(nearDate, { nil: null }))
    .map(([p, firstDate]) => (firstDate ? { ...p, firstDate } : p));

export const PERIOD_NAMES = ['P1', 'P2', 'P3', 'P4'];
export const anyPeriods: fc.Arbitrary<Period[]> = fc.integer({ min: 0, max: 1000 }).map((from) =>
  PERIOD_NAMES.map((name, i) => ({
    name,
    start: toClock(from + i * 50),
    end: toClock(from + i * 50 + 45),
  })),
);
const periodDay = fc.tuple(fc.nat(3), fc.nat(3)).map(([a, b]) => ({
  periods: PERIOD_NAMES.slice(Math.min(a, b), Math.max(a, b) + 1),
}));

const weekly = fc.record({
  kind: fc.constant('weekly' as const),
  ...common,
  weeks: fc.constantFrom('teaching' as const, 'calendar' as const),
  days: fc.uniqueArray(
    fc.tuple(anyWeekday, fc.oneof(time, time, periodDay)).map(([day, at]) => ({ day, ...at })),
    { minLength: 1, maxLength: 7, selector: (d) => d.day },
  ),
});
/** Weekly patterns whose days share one time. */
const steady = fc
  .tuple(weekly, time)
  .map(([p, at]) => ({ ...p, days: p.days.map(({ day }) => ({ day, ...at })) }));
const daily = fc
  .tuple(fc.record({ kind: fc.constant('daily' as const), ...common }), time)
  .map(([p, t]) => ({ ...p, ...t }));
const monthly = fc
  .tuple(
    fc.record({ kind: fc.constant('monthly' as const), ...common }),
    time,
    fc.oneof(
      fc.record({ onDate: fc.integer({ min: 1, max: 31 }) }),
      fc.record({ onWeekday: fc.record({ nth: fc.constantFrom(1, 2, 3, 4, 5, -1), day: anyWeekday }) }),
    ),
  )
  .map(([p, t, on]) => ({ ...p, ...t, ...on }));
const dates = fc
  .tuple(
    fc.record({ kind: fc.constant('dates' as const), ...common }),
    time,
    fc.uniqueArray(fc.tuple(nearDate, fc.option(time, { nil: null })), {
      minLength: 1,
      maxLength: 25,
      selector: ([d]) => d,
    }),
  )
  .map(([p, t, list]): DatesPattern => ({
    ...p,
    ...t,
    dates: list.map(([date, own]) => (own ? { date, ...own } : date)),
  }));

export const anyPattern: fc.Arbitrary<MeetingPattern> = maybeFrom(
  fc.oneof(weekly, steady, daily, monthly, dates) as fc.Arbitrary<MeetingPattern>,
);

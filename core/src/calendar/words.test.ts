import type { WeeklyPattern } from './plan';
import {
  changesBetween,
  clockWords,
  countWords,
  dateIn,
  swapWords,
  dateWords,
  dayWords,
  durationWords,
  instantWords,
  isLocalDate,
  isZone,
  listWords,
  namesWords,
  offsetAt,
  patternWords,
  termDays,
  toClock,
  weekOf,
  toEpochDay,
  zoneWords,
} from './index';

const AT = Date.UTC(2026, 9, 6, 21, 30);

test('dates, times and zones are said as people say them', () => {
  expect(dateWords('2026-10-06')).toBe('Tue 6 Oct');
  expect(dayWords('2027-01-03')).toBe('Sun 3 Jan 2027');
  expect(instantWords(AT, 'America/Halifax')).toBe('Tue 6 Oct, 18:30');
  expect(instantWords(AT, 'Asia/Kathmandu')).toBe('Wed 7 Oct, 03:15');
  expect(clockWords(AT, 'Europe/Lisbon')).toBe('22:30');
  expect(dateIn('Asia/Kathmandu', AT)).toBe('2026-10-07');
  expect(zoneWords('America/Port_of_Spain')).toBe('Port of Spain');
});

test.each([
  [0, '0 min'],
  [45, '45 min'],
  [60, '1 h'],
  [80, '1 h 20 min'],
  [2080, '34 h 40 min'],
])('%d minutes are %s', (minutes, words) => expect(durationWords(minutes)).toBe(words));

test('counts and lists read as sentences', () => {
  expect(countWords(1, 'person', 'people')).toBe('1 person');
  expect(countWords(3, 'person', 'people')).toBe('3 people');
  expect(countWords(0, 'session')).toBe('0 sessions');
  expect([listWords([]), listWords(['a']), listWords(['a', 'b']), listWords(['a', 'b', 'c'])]).toEqual([
    '',
    'a',
    'a and b',
    'a, b and c',
  ]);
});

test('a pattern says each time once, in the order of the week', () => {
  const pattern: WeeklyPattern = {
    kind: 'weekly',
    every: 1,
    lingerMinutes: 0,
    ends: { by: 'term' },
    days: [
      { day: 'thursday', start: '18:30', minutes: 80 },
      { day: 'tuesday', start: '18:30', minutes: 80 },
      { day: 'friday', start: '23:30', minutes: 60 },
    ],
  };
  expect(patternWords(pattern)).toBe('Tue and Thu 18:30–19:50, Fri 23:30–00:30');
  expect(patternWords({ ...pattern, every: 2, days: pattern.days.slice(0, 1) })).toBe(
    'every 2nd week, Thu 18:30–19:50',
  );
  expect(toClock(-30)).toBe('23:30');
});

test.each(['2026-02-30', '2026-13-01', '26-10-06', '2026-10-6', '', 'tomorrow', '2025-02-29', '1026-01-01'])(
  '%j is no date',
  (text) => {
    expect(isLocalDate(text)).toBe(false);
  },
);
test.each(['2026-10-06', '2028-02-29'])('%j is a date', (text) => expect(isLocalDate(text)).toBe(true));

test.each(['Nowhere/Else', '', '+03:00', 'Halifax'])('%j is no zone', (zone) =>
  expect(isZone(zone)).toBe(false),
);
test.each(['America/Halifax', 'UTC', 'Asia/Kathmandu'])('%j is a zone', (zone) =>
  expect(isZone(zone)).toBe(true),
);

test("a zone's clock changes are known, with what they change from and to", () => {
  const year = (zone: string) => changesBetween(zone, Date.UTC(2026, 0, 1), Date.UTC(2026, 11, 31));
  expect(year('America/Halifax').map((c) => [new Date(c.at).toISOString(), c.before, c.after])).toEqual([
    ['2026-03-08T06:00:00.000Z', -240, -180],
    ['2026-11-01T05:00:00.000Z', -180, -240],
  ]);
  expect(year('Australia/Lord_Howe').map((c) => c.after - c.before)).toEqual([-30, 30]);
  expect(year('America/Port_of_Spain')).toEqual([]);
  expect(offsetAt('Asia/Kathmandu', AT)).toBe(345);
});

test('a term of one day, and one whose every day is off, have their weeks all the same', () => {
  const term = {
    name: 'T',
    zone: 'UTC',
    firstDay: '2026-10-07',
    lastDay: '2026-10-07',
    daysOff: [],
    daySwaps: [],
  };
  expect(termDays(term).weeks).toEqual([{ monday: toEpochDay('2026-10-05'), number: 1 }]);
  const off = termDays({ ...term, daysOff: [{ from: '2026-10-01', to: '2026-10-30', name: 'Storm' }] });
  expect(weekOf(off, toEpochDay('2026-10-07'))).toEqual({
    monday: toEpochDay('2026-10-05'),
    number: null,
    breakName: 'Storm',
  });
});

test('of many names the first three are said, and how many more', () => {
  expect(namesWords(['a', 'b', 'c', 'd'])).toBe('a, b, c and d');
  expect(namesWords(['a', 'b', 'c', 'd', 'e'])).toBe('a, b, c and 2 more');
});

test('cities are written as people write them, and a day swap says its weekday once', () => {
  expect(['America/St_Johns', 'America/Sao_Paulo', 'America/New_York', 'UTC'].map(zoneWords)).toEqual([
    'St John’s',
    'São Paulo',
    'New York',
    'UTC',
  ]);
  const swap = { date: '2026-11-25', follows: 'friday' as const };
  expect(swapWords({ ...swap, name: 'Friday timetable' })).toBe('Wed 25 Nov follows Friday');
  expect(swapWords({ ...swap, name: 'Founders’ Day' })).toBe('Wed 25 Nov follows Friday: Founders’ Day');
});

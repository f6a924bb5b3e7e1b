import { toEpochDay, toLocalDate } from './localDate';
import { readRecurrence, recur } from './recurrence';

const ZONE = 'America/New_York';

/** The first `n` occurrences as `YYYY-MM-DD`, with the time where it is not 09:00. */
function occurrences(text: string, start: string, n: number): string[] {
  const rule = readRecurrence(text);
  if (typeof rule === 'string') throw new Error(rule);
  const [date = '', clock = '09:00'] = start.split(' ');
  const seconds = +clock.slice(0, 2) * 3600 + +clock.slice(3) * 60;
  return recur(rule, { day: toEpochDay(date), seconds }, toEpochDay('2030-01-01'), n, ZONE)!.map((t) => {
    const time = new Date(t.seconds * 1000).toISOString().slice(11, 16);
    return time === '09:00' ? toLocalDate(t.day) : `${toLocalDate(t.day)} ${time}`;
  });
}

/** "1997-09-02..11" is a run of days, "1997-09-02,9,16" several of a month. */
function days(text: string): string[] {
  return text.split(' ').flatMap((part) => {
    const month = part.slice(0, 8);
    const rest = part.slice(8);
    const pad = (n: number | string) => month + String(n).padStart(2, '0');
    if (!rest.includes('..')) return rest.split(',').map(pad);
    const [from = 0, to = 0] = rest.split('..').map(Number);
    return Array.from({ length: to - from + 1 }, (_, i) => pad(from + i));
  });
}

// The examples of RFC 5545 §3.8.5.3: rule, start, the dates it lists, and whether the list is complete.
const START = '1997-09-02';
const EXAMPLES: [string, string, string, ('all' | 'more')?][] = [
  ['FREQ=DAILY;COUNT=10', START, '1997-09-2..11', 'all'],
  [
    'FREQ=DAILY;UNTIL=19971224T000000Z',
    START,
    '1997-09-2..30 1997-10-1..31 1997-11-1..30 1997-12-1..23',
    'all',
  ],
  ['FREQ=DAILY;INTERVAL=2', START, '1997-09-2,4,6,8'],
  ['FREQ=DAILY;INTERVAL=10;COUNT=5', START, '1997-09-2,12,22 1997-10-2,12', 'all'],
  [
    'FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA',
    '1998-01-01',
    '1998-01-1..31 1999-01-1..31 2000-01-1..31',
    'all',
  ],
  [
    'FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1',
    '1998-01-01',
    '1998-01-1..31 1999-01-1..31 2000-01-1..31',
    'all',
  ],
  ['FREQ=WEEKLY;COUNT=10', START, '1997-09-2,9,16,23,30 1997-10-7,14,21,28 1997-11-4', 'all'],
  [
    'FREQ=WEEKLY;UNTIL=19971224T000000Z',
    START,
    '1997-09-2,9,16,23,30 1997-10-7,14,21,28 1997-11-4,11,18,25 1997-12-2,9,16,23',
    'all',
  ],
  [
    'FREQ=WEEKLY;INTERVAL=2;WKST=SU',
    START,
    '1997-09-2,16,30 1997-10-14,28 1997-11-11,25 1997-12-9,23 1998-01-6,20',
  ],
  [
    'FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH',
    START,
    '1997-09-2,4,9,11,16,18,23,25,30 1997-10-2',
    'all',
  ],
  ['FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH', START, '1997-09-2,4,9,11,16,18,23,25,30 1997-10-2', 'all'],
  [
    'FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR',
    '1997-09-01',
    '1997-09-1,3,5,15,17,19,29 1997-10-1,3,13,15,17,27,29,31 1997-11-10,12,14,24,26,28 1997-12-8,10,12,22',
    'all',
  ],
  [
    'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
    START,
    '1997-09-2,4,16,18,30 1997-10-2,14,16',
    'all',
  ],
  [
    'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
    '1997-09-05',
    '1997-09-5 1997-10-3 1997-11-7 1997-12-5 1998-01-2 1998-02-6 1998-03-6 1998-04-3 1998-05-1 1998-06-5',
    'all',
  ],
  [
    'FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR',
    '1997-09-05',
    '1997-09-5 1997-10-3 1997-11-7 1997-12-5',
    'all',
  ],
  [
    'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU',
    '1997-09-07',
    '1997-09-7,28 1997-11-2,30 1998-01-4,25 1998-03-1,29 1998-05-3,31',
    'all',
  ],
  [
    'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
    '1997-09-22',
    '1997-09-22 1997-10-20 1997-11-17 1997-12-22 1998-01-19 1998-02-16',
    'all',
  ],
  [
    'FREQ=MONTHLY;BYMONTHDAY=-3',
    '1997-09-28',
    '1997-09-28 1997-10-29 1997-11-28 1997-12-29 1998-01-29 1998-02-26',
  ],
  [
    'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15',
    START,
    '1997-09-2,15 1997-10-2,15 1997-11-2,15 1997-12-2,15 1998-01-2,15',
    'all',
  ],
  [
    'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
    '1997-09-30',
    '1997-09-30 1997-10-1,31 1997-11-1,30 1997-12-1,31 1998-01-1,31 1998-02-1',
    'all',
  ],
  [
    'FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15',
    '1997-09-10',
    '1997-09-10..15 1999-03-10..13',
    'all',
  ],
  [
    'FREQ=MONTHLY;INTERVAL=2;BYDAY=TU',
    START,
    '1997-09-2,9,16,23,30 1997-11-4,11,18,25 1998-01-6,13,20,27 1998-03-3,10,17,24,31',
  ],
  [
    'FREQ=YEARLY;COUNT=10;BYMONTH=6,7',
    '1997-06-10',
    '1997-06-10 1997-07-10 1998-06-10 1998-07-10 1999-06-10 1999-07-10 2000-06-10 2000-07-10 2001-06-10 2001-07-10',
    'all',
  ],
  [
    'FREQ=YEARLY;INTERVAL=2;COUNT=10;BYMONTH=1,2,3',
    '1997-03-10',
    '1997-03-10 1999-01-10 1999-02-10 1999-03-10 2001-01-10 2001-02-10 2001-03-10 2003-01-10 2003-02-10 2003-03-10',
    'all',
  ],
  [
    'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
    '1997-01-01',
    '1997-01-1 1997-04-10 1997-07-19 2000-01-1 2000-04-9 2000-07-18 2003-01-1 2003-04-10 2003-07-19 2006-01-1',
    'all',
  ],
  ['FREQ=YEARLY;BYDAY=20MO', '1997-05-19', '1997-05-19 1998-05-18 1999-05-17'],
  ['FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', '1997-05-12', '1997-05-12 1998-05-11 1999-05-17'],
  ['FREQ=YEARLY;BYMONTH=3;BYDAY=TH', '1997-03-13', '1997-03-13,20,27 1998-03-5,12,19,26 1999-03-4,11,18,25'],
  [
    'FREQ=YEARLY;BYDAY=TH;BYMONTH=6,7,8',
    '1997-06-05',
    '1997-06-5,12,19,26 1997-07-3,10,17,24,31 1997-08-7,14,21,28 1998-06-4,11,18,25 1998-07-2,9,16,23,30 1998-08-6,13,20,27',
  ],
  // Its start is no Friday the 13th and is left out by EXDATE in the RFC: see the reader's test.
  [
    'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
    '1998-02-13',
    '1998-02-13 1998-03-13 1998-11-13 1999-08-13 2000-10-13',
  ],
  [
    'FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13',
    '1997-09-13',
    '1997-09-13 1997-10-11 1997-11-8 1997-12-13 1998-01-10 1998-02-7 1998-03-7 1998-04-11 1998-05-9 1998-06-13',
  ],
  [
    'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
    '1996-11-05',
    '1996-11-5 2000-11-7 2004-11-2',
  ],
  ['FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3', '1997-09-04', '1997-09-4 1997-10-7 1997-11-6', 'all'],
  [
    'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2',
    '1997-09-29',
    '1997-09-29 1997-10-30 1997-11-27 1997-12-30 1998-01-29 1998-02-26 1998-03-30',
  ],
  ['FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO', '1997-08-05', '1997-08-5,10,19,24', 'all'],
  ['FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU', '1997-08-05', '1997-08-5,17,19,31', 'all'],
  ['FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5', '2007-01-15', '2007-01-15,30 2007-02-15 2007-03-15,30', 'all'],
];

const whole = EXAMPLES.map(([rule, start, listed, more]) => ({
  rule,
  start,
  listed,
  complete: more === 'all',
}));
test.each(whole)('RFC 5545 §3.8.5.3: $rule', ({ rule, start, listed, complete }) => {
  const expected = days(listed);
  expect(occurrences(rule, start, expected.length + (complete ? 5 : 0))).toEqual(expected);
});

test('RFC 5545 §3.8.5.3: rules by hour and minute', () => {
  expect(occurrences('FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T210000Z', START, 9)).toEqual([
    START,
    `${START} 12:00`,
    `${START} 15:00`,
  ]);
  expect(occurrences('FREQ=MINUTELY;INTERVAL=15;COUNT=6', START, 9).at(-1)).toBe(`${START} 10:15`);
  expect(occurrences('FREQ=MINUTELY;INTERVAL=90;COUNT=4', START, 9)).toEqual([
    START,
    `${START} 10:30`,
    `${START} 12:00`,
    `${START} 13:30`,
  ]);
  const daily = occurrences('FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40', START, 60);
  expect(daily[23]).toBe(`${START} 16:40`);
  expect(daily[24]).toBe('1997-09-03');
  expect(occurrences('FREQ=MINUTELY;INTERVAL=20;BYHOUR=9,10,11,12,13,14,15,16', START, 60)).toEqual(daily);
});

test('a start that its rule does not give is the first occurrence all the same, and is counted', () => {
  expect(occurrences('FREQ=WEEKLY;BYDAY=WE;COUNT=2', START, 9)).toEqual([START, '1997-09-03']);
  expect(occurrences('FREQ=DAILY;UNTIL=19970901', START, 9)).toEqual([]);
});

test('weeks 53 and the last belong to the year that has four of their days', () => {
  expect(occurrences('FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO', '1998-12-28', 3)).toEqual([
    '1998-12-28',
    '2004-12-27',
    '2009-12-28',
  ]);
  expect(occurrences('FREQ=YEARLY;BYWEEKNO=-1;BYDAY=MO', '1997-12-22', 3)).toEqual([
    '1997-12-22',
    '1998-12-28',
    '1999-12-27',
  ]);
  expect(occurrences('FREQ=SECONDLY;INTERVAL=30;COUNT=3', START, 9)).toHaveLength(3);
});

test('a rule that repeats by the second for years is given up, not followed', () => {
  const rule = readRecurrence('FREQ=SECONDLY');
  expect(recur(rule as never, { day: 0, seconds: 0 }, toEpochDay('2026-01-01'), Infinity)).toBeNull();
});

test.each([
  ['', 'no FREQ'],
  ['FREQ=FORTNIGHTLY', 'FORTNIGHTLY'],
  ['FREQ=DAILY;COUNT=0', 'COUNT=0'],
  ['FREQ=DAILY;COUNT=2;UNTIL=19971224', 'both'],
  ['FREQ=DAILY;UNTIL=tomorrow', 'UNTIL'],
  ['FREQ=WEEKLY;BYDAY=XX', 'BYDAY'],
  ['FREQ=WEEKLY;WKST=XX', 'WKST'],
  ['FREQ=MONTHLY;BYMONTHDAY=32', 'BYMONTHDAY=32'],
  ['FREQ=MONTHLY;BYMONTHDAY=0', 'BYMONTHDAY=0'],
  ['FREQ=DAILY;BYMOOD=1', 'BYMOOD'],
])('%j is no rule: %s', (text, part) => expect(readRecurrence(text)).toContain(part));

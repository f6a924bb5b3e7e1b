import { readCalendar } from './icsRead';

const calendar = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:a', 'SUMMARY:Tides', ...lines, 'END:VEVENT'];
const read = (...lines: string[]) =>
  readCalendar(calendar(...lines), 'America/Halifax', '1997-01-01', '1999-12-31');
const starts = (...lines: string[]) =>
  read(...event(...lines)).events[0]?.meetings.map((m) => new Date(m.startsAt).toISOString().slice(0, 16)) ??
  [];

test('RFC 5545 §3.8.5.3: Friday the 13th, its start left out by EXDATE', () => {
  expect(
    starts(
      'DTSTART;TZID=America/New_York:19970902T090000',
      'EXDATE;TZID=America/New_York:19970902T090000',
      'RRULE:FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
    ),
  ).toEqual(['1998-02-13T14:00', '1998-03-13T14:00', '1998-11-13T14:00', '1999-08-13T13:00']);
});

test('a wall time stays through a clock change, in the zone of the event', () => {
  const found = starts('DTSTART;TZID=America/New_York:19971021T090000', 'RRULE:FREQ=WEEKLY;COUNT=3');
  expect(found).toEqual(['1997-10-21T13:00', '1997-10-28T14:00', '1997-11-04T14:00']);
});

test('dates are added and left out, one is moved, one is cancelled, and a length is worked out', () => {
  const master = event(
    'DTSTART:19970902T100000Z',
    'DTEND:19970902T111500Z',
    'RRULE:FREQ=DAILY;COUNT=4',
    'RDATE:19970910T100000Z',
    'EXDATE:19970903T100000Z',
  );
  const moved = event('RECURRENCE-ID:19970904T100000Z', 'DTSTART:19970904T150000Z', 'DURATION:PT30M');
  const cancelled = event('RECURRENCE-ID:19970905T100000Z', 'DTSTART:19970905T100000Z', 'STATUS:CANCELLED');
  const { meetings } = read(...master, ...moved, ...cancelled).events[0]!;
  expect(meetings.map((m) => [new Date(m.startsAt).toISOString().slice(5, 16), m.minutes])).toEqual([
    ['09-02T10:00', 75],
    ['09-04T15:00', 30],
    ['09-10T10:00', 75],
  ]);
});

test('this and all later ones move together (RANGE=THISANDFUTURE)', () => {
  const master = event('DTSTART:19970902T100000Z', 'DURATION:PT1H', 'RRULE:FREQ=DAILY;COUNT=3');
  const later = event(
    'RECURRENCE-ID;RANGE=THISANDFUTURE:19970903T100000Z',
    'DTSTART:19970903T120000Z',
    'DURATION:PT2H',
  );
  const { meetings } = read(...master, ...later).events[0]!;
  expect(meetings.map((m) => [new Date(m.startsAt).getUTCHours(), m.minutes])).toEqual([
    [10, 60],
    [12, 120],
    [12, 120],
  ]);
});

test('a zone by another name is read from the VTIMEZONE that describes it; without one the event is refused', () => {
  const zone = [
    'BEGIN:VTIMEZONE',
    'TZID:Harbour Time',
    'BEGIN:STANDARD',
    'DTSTART:19700101T000000',
    'TZOFFSETFROM:-0230',
    'TZOFFSETTO:-0230',
    'END:STANDARD',
    'END:VTIMEZONE',
  ];
  const at = event('DTSTART;TZID=Harbour Time:19970902T090000', 'DURATION:PT1H');
  expect(read(...zone, ...at).events[0]!.meetings[0]!.startsAt).toBe(Date.UTC(1997, 8, 2, 11, 30));
  expect(read(...at).bad[0]!.reason).toContain('"Harbour Time" is not known');
});

test('a time without a zone is taken at home; without an end it lasts an hour', () => {
  const { meetings } = read(...event('DTSTART:19970902T090000')).events[0]!;
  expect(meetings).toEqual([{ startsAt: Date.UTC(1997, 8, 2, 12), minutes: 60 }]);
});

test('events of whole days are kept apart, with first and last day, yearly ones too', () => {
  const { wholeDays, events } = read(
    ...event('DTSTART;VALUE=DATE:19970901', 'DTEND;VALUE=DATE:19970904', 'RRULE:FREQ=YEARLY'),
  );
  expect(events).toEqual([]);
  expect(wholeDays[0]!.spans).toEqual([
    { from: '1997-09-01', to: '1997-09-03' },
    { from: '1998-09-01', to: '1998-09-03' },
    { from: '1999-09-01', to: '1999-09-03' },
  ]);
});

test.each([
  ['no calendar', 'Hello', 'does not begin with BEGIN:VCALENDAR'],
  ['a torn one', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY', 'damaged'],
  ['an empty one', calendar(), 'no event'],
])('%s is refused in words', (_name, text, part) => {
  expect(readCalendar(text, 'UTC', '1997-01-01', '1997-12-31').fault).toContain(part);
});

test('one event that is no iCalendar does not take the others with it', () => {
  const torn = event('DTSTART:19970902T090000Z', 'RRULE:FREQ=NEVER');
  const { events, bad } = read(...torn, ...event('DTSTART:19970903T090000Z'));
  expect(events).toHaveLength(1);
  expect(bad).toMatchObject([{ title: 'Tides' }]);
});

test.each([
  ['a rule that is none', ['DTSTART:19970902T090000Z', 'RRULE:FREQ=DAILY;BYMONTH=13'], 'BYMONTH=13'],
  ['no start', ['DTEND:19970902T090000Z'], 'no DTSTART'],
  ['an end before its start', ['DTSTART:19970902T090000Z', 'DTEND:19970902T080000Z'], 'ends before'],
  ['two days long', ['DTSTART:19970902T090000Z', 'DURATION:P2D'], '12 hours'],
  ['every second', ['DTSTART:19970902T090000Z', 'RRULE:FREQ=SECONDLY'], 'more often'],
  ['long ago', ['DTSTART:18970902T090000Z'], 'out of reach'],
  ['another year', ['DTSTART:20070902T090000Z'], 'None of its dates'],
])('an event with %s is left out with its reason', (_name, lines, reason) => {
  const { events, bad } = read(...event(...lines));
  expect(events).toEqual([]);
  expect(bad).toHaveLength(1);
  expect(`${bad[0]!.reason}`).toMatch(new RegExp(`${reason}|cannot be read`));
});

const days = (...lines: string[]) =>
  read(...lines).wholeDays.flatMap((d) =>
    d.spans.map((s) => (s.from === s.to ? s.from : `${s.from} ${s.to}`)),
  );
const times = (...lines: string[]) =>
  read(...lines).events.flatMap((e) =>
    e.meetings.map((m) => `${new Date(m.startsAt).toISOString().slice(5, 16)} ${m.minutes}`),
  );
const daily = event('DTSTART:19970902T100000Z', 'DURATION:PT1H', 'RRULE:FREQ=DAILY;COUNT=4');
const changedTo = (at: string, to: string, more = '') =>
  event(`RECURRENCE-ID${more}:${at}T100000Z`, `DTSTART:${to}Z`, 'DURATION:PT1H');
const RANGE = ';RANGE=THISANDFUTURE';

test.each<[string, string[][], string[]]>([
  [
    'three moved onto each other’s times are three still',
    [
      changedTo('19970902', '19970903T100000'),
      changedTo('19970903', '19970904T100000'),
      changedTo('19970904', '19970902T100000'),
    ],
    ['09-02T10:00 60', '09-03T10:00 60', '09-04T10:00 60', '09-05T10:00 60'],
  ],
  [
    'this and later ones, then one of them: the one is as it says',
    [changedTo('19970903', '19970903T120000', RANGE), changedTo('19970904', '19970904T170000')],
    ['09-02T10:00 60', '09-03T12:00 60', '09-04T17:00 60', '09-05T12:00 60'],
  ],
  [
    'the same in the other order',
    [changedTo('19970904', '19970904T170000'), changedTo('19970903', '19970903T120000', RANGE)],
    ['09-02T10:00 60', '09-03T12:00 60', '09-04T17:00 60', '09-05T12:00 60'],
  ],
  [
    'a later range takes over from an earlier one, in whichever order they stand',
    [changedTo('19970905', '19970905T070000', RANGE), changedTo('19970903', '19970903T120000', RANGE)],
    ['09-02T10:00 60', '09-03T12:00 60', '09-04T12:00 60', '09-05T07:00 60'],
  ],
  [
    'all later ones cancelled, one of them said again',
    [
      event(`RECURRENCE-ID${RANGE}:19970903T100000Z`, 'STATUS:CANCELLED'),
      changedTo('19970905', '19970905T080000'),
    ],
    ['09-02T10:00 60', '09-05T08:00 60'],
  ],
  [
    'of two versions of one the higher SEQUENCE, then the later DTSTAMP',
    [
      [...changedTo('19970903', '19970903T110000').slice(0, -1), 'SEQUENCE:2', 'END:VEVENT'],
      [...changedTo('19970903', '19970903T190000').slice(0, -1), 'SEQUENCE:1', 'END:VEVENT'],
      [...changedTo('19970904', '19970904T110000').slice(0, -1), 'DTSTAMP:19970102T000000Z', 'END:VEVENT'],
      [...changedTo('19970904', '19970904T190000').slice(0, -1), 'DTSTAMP:19970101T000000Z', 'END:VEVENT'],
    ],
    ['09-02T10:00 60', '09-03T11:00 60', '09-04T11:00 60', '09-05T10:00 60'],
  ],
  [
    'an override that names its day alone; one of a date that no rule gives',
    [
      event('RECURRENCE-ID;VALUE=DATE:19970903', 'DTSTART:19970903T150000Z'),
      changedTo('19971001', '19971001T100000'),
    ],
    ['09-02T10:00 60', '09-03T15:00 60', '09-04T10:00 60', '09-05T10:00 60', '10-01T10:00 60'],
  ],
])('overrides: %s', (_name, overrides, wanted) => {
  expect(times(...daily, ...overrides.flat())).toEqual(wanted);
  expect(times(...overrides.flat(), ...daily)).toEqual(wanted);
});

test.each<[string, string[], string[]]>([
  [
    'periods keep their own length',
    [
      'DTSTART:19970902T100000Z',
      'DURATION:PT1H',
      'RDATE;VALUE=PERIOD:19970910T100000Z/PT2H,19970911T100000Z/19970911T103000Z',
    ],
    ['09-02T10:00 60', '09-10T10:00 120', '09-11T10:00 30'],
  ],
  [
    'a rule leaves dates out (EXRULE, RFC 2445)',
    ['DTSTART:19970902T100000Z', 'RRULE:FREQ=DAILY;COUNT=4', 'EXRULE:FREQ=DAILY;INTERVAL=2;COUNT=2'],
    ['09-03T10:00 60', '09-05T10:00 60'],
  ],
  [
    'an hour that comes twice is the first of the two',
    ['DTSTART;TZID=America/New_York:19971026T013000'],
    ['10-26T05:30 60'],
  ],
])('dates: %s', (_name, lines, wanted) => expect(times(...event(...lines))).toEqual(wanted));

test('an hour that comes twice is the first of the two by a VTIMEZONE of the text too', () => {
  const observance = (name: string, start: string, from: string, to: string, rule: string) => [
    `BEGIN:${name}`,
    `DTSTART:${start}`,
    `TZOFFSETFROM:${from}`,
    `TZOFFSETTO:${to}`,
    `RRULE:FREQ=YEARLY;${rule}`,
    `END:${name}`,
  ];
  const zone = [
    'BEGIN:VTIMEZONE',
    'TZID:Eastern',
    ...observance('DAYLIGHT', '19870405T020000', '-0500', '-0400', 'BYMONTH=4;BYDAY=1SU'),
    ...observance('STANDARD', '19671029T020000', '-0400', '-0500', 'BYMONTH=10;BYDAY=-1SU'),
    'END:VTIMEZONE',
  ];
  const at = (wall: string) => times(...zone, ...event(`DTSTART;TZID=Eastern:${wall}`))[0];
  expect(at('19971026T003000')).toBe('10-26T04:30 60');
  expect(at('19971026T013000')).toBe('10-26T05:30 60');
  expect(at('19971026T023000')).toBe('10-26T07:30 60');
});

const closed = (...more: string[]) =>
  event('DTSTART;VALUE=DATE:19970901', 'RRULE:FREQ=WEEKLY;COUNT=3', ...more);
test.each<[string, string[], string[]]>([
  ['EXDATE', closed('EXDATE;VALUE=DATE:19970908'), ['1997-09-01', '1997-09-15']],
  ['RDATE', closed('RDATE;VALUE=DATE:19971001'), ['1997-09-01', '1997-09-08', '1997-09-15', '1997-10-01']],
  [
    'RECURRENCE-ID',
    [
      ...closed(),
      ...event(
        'RECURRENCE-ID;VALUE=DATE:19970908',
        'DTSTART;VALUE=DATE:19970909',
        'DTEND;VALUE=DATE:19970911',
      ),
      ...event('RECURRENCE-ID;VALUE=DATE:19970915', 'DTSTART;VALUE=DATE:19970915', 'STATUS:CANCELLED'),
    ],
    ['1997-09-01', '1997-09-09 1997-09-10'],
  ],
])('whole days heed %s', (_name, lines, wanted) => expect(days(...lines)).toEqual(wanted));

test('what is cancelled is said', () => {
  const { wholeDays, bad } = read(...closed('STATUS:CANCELLED'));
  expect([wholeDays, bad]).toEqual([[], [{ title: 'Tides', reason: 'It is cancelled.' }]]);
});

test.each([
  ['DTSTART:19970230T100000Z', '19970230T100000Z'],
  ['EXDATE:19970902T100000Z,19971302T100000Z', '19971302T100000Z'],
  ['RRULE:FREQ=DAILY;UNTIL=19970931T000000Z', '19970931T000000Z'],
  ['RDATE;VALUE=PERIOD:19970902T250000Z/PT1H', '19970902T250000Z'],
])('%s is no date there is: the event is left out, with the line', (line, date) => {
  const start = line.startsWith('DTSTART') ? [] : ['DTSTART:19970902T100000Z'];
  const { events, bad } = read(...event(...start, line), ...daily.map((l) => l.replace('UID:a', 'UID:b')));
  expect(events).toHaveLength(1);
  expect(bad).toEqual([{ title: 'Tides', reason: `Line ${6 + start.length}: ${date} is no date there is.` }]);
});

test('what is past 50,000 events is said', () => {
  const many = Array.from({ length: 50_003 }, (_, i) => [
    'BEGIN:VEVENT',
    `UID:${i}`,
    'DTSTART:19970902T100000Z',
    'END:VEVENT',
  ]).flat();
  const text = calendar(many.join('\r\n'));
  const { events, bad } = readCalendar(text, 'UTC', '1997-01-01', '1999-12-31');
  expect(events).toHaveLength(50_000);
  expect(bad).toEqual([
    { title: '3 more events', reason: 'At most 50,000 events are read from one calendar: divide it.' },
  ]);
});

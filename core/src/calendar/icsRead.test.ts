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

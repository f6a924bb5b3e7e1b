import { DatesPattern, type MeetingPattern, type Term, type Weekday } from './plan';
import { readTable } from '../roster/table';
import { readCalendar, type ReadMeeting } from './icsRead';
import { isLocalDate, toClock, toEpochDay, toLocalDate, toMinutes, WEEKDAYS, weekdayOf } from './localDate';
import { sessionsOf } from './sessions';
import { termDays, type TermDays } from './term';
import { toInstant, toWall } from './zone';

/** A series that a timetable comes to in a term. */
export interface ReadSeries {
  title: string;
  pattern: MeetingPattern;
  sessions: number;
  /** Dates of the timetable that are days off in the term. */
  skipped: number;
}

export interface TimetablePreview {
  series: ReadSeries[];
  bad: { title: string; reason: string }[];
  fault: string | null;
}

interface LocalMeeting {
  date: string;
  start: string;
  minutes: number;
}

const MOST_SERIES = 60;

/** Reads a timetable, `.ics` or `.csv`, into series of the term. Nothing is written. */
export function readTimetable(text: string, term: Term): TimetablePreview {
  const isCalendar = /^\s*BEGIN:VCALENDAR/i.test(text.replace(/^\uFEFF/, ''));
  const read = isCalendar ? fromCalendar(text, term) : fromTable(text, term);
  const days = termDays(term);
  const series = read.events.flatMap(({ title, meetings }) => seriesFrom(title, meetings, term, days));
  if (series.length > MOST_SERIES)
    return {
      series: [],
      bad: read.bad,
      fault: `This holds ${series.length} series. Read at most ${MOST_SERIES} at once.`,
    };
  const nothing = !series.length && !read.bad.length ? 'Nothing in it lies in the term.' : null;
  return { series, bad: read.bad, fault: read.fault ?? nothing };
}

interface Read {
  events: { title: string; meetings: ReadMeeting[] }[];
  bad: { title: string; reason: string }[];
  fault: string | null;
}

function fromCalendar(text: string, term: Term): Read {
  const { events, wholeDays, bad, fault } = readCalendar(text, term.zone, term.firstDay, term.lastDay);
  const whole = wholeDays.map((d) => ({
    title: d.title,
    reason: 'It lasts whole days: read it as days off of the term.',
  }));
  return { events, bad: [...bad, ...whole], fault };
}

type Column = 'title' | 'date' | 'start' | 'end' | 'minutes';
const HEADINGS: Record<Column, RegExp> = {
  title: /^(series|title|name|course|subject|session|class)$/i,
  date: /^(date|day)$/i,
  start: /^(start|starts|begin|begins|from|time|start time)$/i,
  end: /^(end|ends|until|to|finish|end time)$/i,
  minutes: /^(minutes|min|length|duration)$/i,
};

function fromTable(text: string, term: Term): Read {
  const events = new Map<string, ReadMeeting[]>();
  const bad: Read['bad'] = [];
  const table = readTable(text, HEADINGS);
  const fault = (message: string): Read => ({ events: [], bad, fault: message });
  if (!table) return fault('There is nothing to read. Give a heading line and a line for each session.');
  const { columns } = table;
  if (columns.date === undefined) return fault('No column of dates was found. Head it "Date".');
  if (columns.start === undefined) return fault('No column of start times was found. Head it "Start".');
  if (columns.end === undefined && columns.minutes === undefined)
    return fault('No column says how long: head one "End" or "Minutes".');
  for (const { line, cells } of table.rows) {
    const cell = (c: Column) => (columns[c] === undefined ? '' : (cells[columns[c]] ?? '').trim());
    const title = (cell('title') || 'Sessions').slice(0, 90);
    const row = meetingOf(cell, term);
    if (typeof row === 'string') bad.push({ title: `Line ${line}`, reason: row });
    else events.set(title, [...(events.get(title) ?? []), row]);
  }
  return { events: [...events].map(([title, meetings]) => ({ title, meetings })), bad, fault: null };
}

const CLOCK = /^([01]?\d|2[0-3])[:.h]([0-5]\d)$/;
const clockOf = (text: string) => {
  const match = CLOCK.exec(text);
  return match ? `${match[1]!.padStart(2, '0')}:${match[2]}` : null;
};

function meetingOf(cell: (c: Column) => string, term: Term): ReadMeeting | string {
  const date = cell('date');
  if (!isLocalDate(date)) return `"${date}" is not a date such as 2026-10-06.`;
  if (date < term.firstDay || date > term.lastDay) return `${date} is outside the term.`;
  const start = clockOf(cell('start'));
  if (!start) return `"${cell('start')}" is not a time such as 18:30.`;
  const minutes = lengthOf(cell, start);
  if (typeof minutes === 'string') return minutes;
  return { startsAt: toInstant(term.zone, toEpochDay(date), toMinutes(start)), minutes };
}

function lengthOf(cell: (c: Column) => string, start: string): number | string {
  const text = cell('minutes');
  if (text) {
    const minutes = Number(text);
    if (Number.isInteger(minutes) && minutes >= 1 && minutes <= 720) return minutes;
    return `"${text}" is not a length from 1 to 720 minutes.`;
  }
  const end = clockOf(cell('end'));
  if (!end) return `"${cell('end')}" is not a time such as 19:50.`;
  const minutes = (toMinutes(end) - toMinutes(start) + 1440) % 1440;
  return minutes >= 1 && minutes <= 720
    ? minutes
    : `From ${start} to ${end} is no length from 1 to 720 minutes.`;
}

/** A second meeting on the same day goes into a series of its own. */
function seriesFrom(title: string, meetings: ReadMeeting[], term: Term, days: TermDays): ReadSeries[] {
  const layers: LocalMeeting[][] = [];
  const sorted = [...meetings].sort((a, b) => a.startsAt - b.startsAt);
  for (const { startsAt, minutes } of sorted) {
    const wall = toWall(term.zone, startsAt);
    const meeting = { date: toLocalDate(wall.day), start: toClock(wall.minutes), minutes };
    if (meeting.date < term.firstDay || meeting.date > term.lastDay) continue;
    const layer = layers.find((l) => l.at(-1)!.date !== meeting.date);
    if (layer) layer.push(meeting);
    else layers.push([meeting]);
  }
  return layers.flatMap((layer, i) => {
    const pattern = patternFrom(layer, term, days);
    if (!pattern) return [];
    const { sessions, skipped } = sessionsOf(term, pattern, days);
    const name = i === 0 ? title : `${title.slice(0, 84)} (${i + 1})`;
    return [{ title: name, pattern, sessions: sessions.length, skipped: skipped.length }];
  });
}

/** The pattern that says a list of dates: weekly where one does exactly, days off aside, or else the list itself. */
export function patternFrom(
  meetings: readonly LocalMeeting[],
  term: Term,
  days: TermDays = termDays(term),
): MeetingPattern | null {
  const first = meetings[0];
  if (!first) return null;
  if (meetings.length > 2)
    for (const every of [1, 2, 3, 4])
      for (const weeks of every === 1 ? (['teaching'] as const) : (['teaching', 'calendar'] as const)) {
        const pattern = weeklyFrom(meetings, every, weeks);
        if (pattern && says(pattern, meetings, term, days)) return pattern;
      }
  const same = meetings.every((m) => m.start === first.start && m.minutes === first.minutes);
  const listed = DatesPattern.safeParse({
    kind: 'dates',
    ...(same ? { start: first.start, minutes: first.minutes } : {}),
    dates: same ? meetings.map((m) => m.date) : meetings,
  });
  return listed.success ? listed.data : null;
}

function weeklyFrom(
  meetings: readonly LocalMeeting[],
  every: number,
  weeks: 'teaching' | 'calendar',
): MeetingPattern | null {
  const times = new Map<Weekday, { day: Weekday; start: string; minutes: number }>();
  for (const { date, start, minutes } of meetings) {
    const day = WEEKDAYS[weekdayOf(toEpochDay(date))]!;
    const known = times.get(day);
    if (known && (known.start !== start || known.minutes !== minutes)) return null;
    times.set(day, { day, start, minutes });
  }
  const sorted = [...times.values()].sort((a, b) => WEEKDAYS.indexOf(a.day) - WEEKDAYS.indexOf(b.day));
  return {
    kind: 'weekly',
    firstDate: meetings[0]!.date,
    every,
    ...(weeks === 'calendar' ? { weeks } : {}),
    days: sorted,
    lingerMinutes: 0,
    ends: { by: 'date', date: meetings.at(-1)!.date },
  };
}

function says(
  pattern: MeetingPattern,
  meetings: readonly LocalMeeting[],
  term: Term,
  days: TermDays,
): boolean {
  // By date and hour: where days are swapped, a week may give the right dates with each other's hours.
  const keyOf = (m: LocalMeeting) => `${m.date} ${m.start} ${m.minutes}`;
  const planned = new Set(
    sessionsOf(term, pattern, days).sessions.map(({ date, startsAt, minutes }) =>
      keyOf({ date, start: toClock(toWall(term.zone, startsAt).minutes), minutes }),
    ),
  );
  const asked = new Set(meetings.map(keyOf));
  // A day off is left out whatever says it; a date that another weekday's timetable takes has to be listed.
  const isOff = (date: string) => days.follows[toEpochDay(date) - days.first]! < 0;
  return (
    [...planned].every((key) => asked.has(key)) &&
    meetings.every((m) => planned.has(keyOf(m)) || isOff(m.date))
  );
}

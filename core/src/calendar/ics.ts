import ICAL from 'ical.js';
import type { MeetingPattern, Term } from '../api/plan';
import { toClock, toEpochDay, toLocalDate, toMinutes, weekdayOf } from './localDate';
import { weekdayIndex } from './term';
import { changesBetween, offsetAt, toInstant, toWall, type Instant } from './zone';

const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

export interface CalendarEntry {
  /** Stays the same for the series' life (RFC 5545 §3.8.4.7). */
  uid: string;
  /** Raised with every change that is sent (§3.8.7.4). */
  sequence: number;
  stamp: Instant;
  title: string;
  description: string;
  url: string;
  organizer: { name: string; email: string };
  attendee: { name: string; email: string };
  term: Term;
  pattern: MeetingPattern;
  /** The sessions as they stand, by their original local date; cancelled ones are left out by EXDATE. */
  sessions: { date: string; startsAt: Instant; minutes: number; state: string }[];
}

/**
 * An iTIP request (RFC 5546 §3.2.2): one VEVENT with a weekly RRULE a group of weekdays that share a time, EXDATE for
 * dates that do not take place, RDATE for swapped days, and a RECURRENCE-ID override for a session that was moved.
 */
export function requestOf(entry: CalendarEntry): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('prodid', '-//Nimble Bell//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('method', 'REQUEST');
  calendar.addSubcomponent(timezoneOf(entry.term));
  const groups = byTime(entry.pattern);
  for (const [index, days] of groups.entries()) {
    // A session belongs to the group whose time it was planned at; swapped days come along as RDATE.
    const own = entry.sessions.filter((s) => groupOf(groups, entry.term, s.date) === index);
    addEvents(calendar, { ...entry, sessions: own }, days, index);
  }
  return calendar.toString() + '\r\n';
}

type Days = MeetingPattern['days'];

function byTime(pattern: MeetingPattern): Days[] {
  const groups = new Map<string, Days>();
  for (const d of pattern.days) {
    const key = `${d.start}/${d.minutes}`;
    groups.set(key, [...(groups.get(key) ?? []), d]);
  }
  return [...groups.values()];
}

function addEvents(calendar: ICAL.Component, entry: CalendarEntry, days: Days, index: number) {
  const { start, minutes } = days[0]!;
  const weekdays = days.map((d) => weekdayIndex(d.day));
  const uid = index === 0 ? entry.uid : entry.uid.replace('@', `-${index}@`);
  const live = entry.sessions
    .filter((s) => s.state !== 'cancelled')
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  if (live.length === 0) return;

  const first = live[0]!;
  const last = live.at(-1)!;
  const ruled = ruleDates(first.date, last.date, weekdays);
  const dates = new Set(live.map((s) => s.date));
  const event = baseEvent(entry, uid, first.date, start, minutes);
  if (ruled) {
    const until = new Date(toInstant(entry.term.zone, toEpochDay(last.date), toMinutes(start)));
    const rule = `FREQ=WEEKLY;BYDAY=${weekdays.map((w) => BYDAY[w]).join(',')};UNTIL=${compact(until)}`;
    event.addPropertyWithValue('rrule', ICAL.Recur.fromString(rule));
    for (const date of ruled) if (!dates.has(date)) addDate(event, 'exdate', date, start, entry.term.zone);
  }
  for (const date of dates)
    if (ruled ? !ruled.includes(date) : dates.size > 1) addDate(event, 'rdate', date, start, entry.term.zone);
  calendar.addSubcomponent(event);
  for (const session of live) {
    const planned = toInstant(entry.term.zone, toEpochDay(session.date), toMinutes(start));
    if (session.startsAt !== planned || session.minutes !== minutes)
      calendar.addSubcomponent(overrideOf(entry, uid, session, start));
  }
}

function groupOf(groups: Days[], term: Term, date: string): number {
  const swap = term.daySwaps.find((s) => s.date === date);
  const weekday = swap ? weekdayIndex(swap.follows) : weekdayOf(toEpochDay(date));
  return Math.max(
    0,
    groups.findIndex((days) => days.some((d) => weekdayIndex(d.day) === weekday)),
  );
}

/** The dates a plain weekly rule from `first` gives, or null where the first date is not one of them. */
function ruleDates(first: string, last: string, weekdays: number[]): string[] | null {
  if (!weekdays.includes(weekdayOf(toEpochDay(first)))) return null;
  const dates: string[] = [];
  for (let day = toEpochDay(first); day <= toEpochDay(last); day++)
    if (weekdays.includes(weekdayOf(day))) dates.push(toLocalDate(day));
  return dates;
}

function baseEvent(entry: CalendarEntry, uid: string, date: string, start: string, minutes: number) {
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', uid);
  event.updatePropertyWithValue('sequence', entry.sequence);
  event.updatePropertyWithValue('dtstamp', utc(entry.stamp));
  event.updatePropertyWithValue('summary', entry.title);
  event.updatePropertyWithValue('description', entry.description);
  event.updatePropertyWithValue('url', entry.url);
  event.updatePropertyWithValue('location', entry.url);
  event.addProperty(localTime('dtstart', date, start, entry.term.zone));
  event.updatePropertyWithValue('duration', ICAL.Duration.fromSeconds(minutes * 60));
  const organizer = new ICAL.Property('organizer');
  organizer.setParameter('cn', entry.organizer.name);
  organizer.setValue(`mailto:${entry.organizer.email}`);
  event.addProperty(organizer);
  const attendee = new ICAL.Property('attendee');
  attendee.setParameter('cn', entry.attendee.name);
  attendee.setParameter('role', 'REQ-PARTICIPANT');
  attendee.setParameter('partstat', 'NEEDS-ACTION');
  attendee.setParameter('rsvp', 'TRUE');
  attendee.setValue(`mailto:${entry.attendee.email}`);
  event.addProperty(attendee);
  return event;
}

function overrideOf(
  entry: CalendarEntry,
  uid: string,
  session: CalendarEntry['sessions'][number],
  start: string,
) {
  const wall = toWall(entry.term.zone, session.startsAt);
  const event = baseEvent(entry, uid, toLocalDate(wall.day), toClock(wall.minutes), session.minutes);
  event.addProperty(localTime('recurrence-id', session.date, start, entry.term.zone));
  return event;
}

function localTime(name: string, date: string, clock: string, zone: string): ICAL.Property {
  const property = new ICAL.Property(name);
  property.setParameter('tzid', zone);
  property.setValue(ICAL.Time.fromDateTimeString(`${date}T${clock}:00`));
  return property;
}

const addDate = (event: ICAL.Component, name: string, date: string, clock: string, zone: string) =>
  event.addProperty(localTime(name, date, clock, zone));

const compact = (date: Date) => date.toISOString().replace(/[-:]|\.\d+/g, '');

const utc = (instant: Instant) =>
  ICAL.Time.fromDateTimeString(new Date(instant).toISOString().replace(/\.\d+Z$/, 'Z'));

/** The zone's rules over the term, each change as an observance of its own (RFC 5545 §3.6.5). */
function timezoneOf(term: Term): ICAL.Component {
  const from = toEpochDay(term.firstDay) * 86_400_000 - 400 * 86_400_000;
  const to = (toEpochDay(term.lastDay) + 2) * 86_400_000;
  const zone = new ICAL.Component('vtimezone');
  zone.updatePropertyWithValue('tzid', term.zone);
  const start = offsetAt(term.zone, from);
  const changes = [{ at: from, before: start, after: start }, ...changesBetween(term.zone, from, to)];
  for (const change of changes) {
    const observance = new ICAL.Component(change.after > change.before ? 'daylight' : 'standard');
    const local = new Date(change.at + change.before * 60_000).toISOString().slice(0, 19);
    observance.updatePropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(local));
    observance.updatePropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromSeconds(change.before * 60));
    observance.updatePropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromSeconds(change.after * 60));
    zone.addSubcomponent(observance);
  }
  return zone;
}

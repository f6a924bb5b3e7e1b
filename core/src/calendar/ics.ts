import ICAL from 'ical.js';
import type { MeetingPattern, Period, Term } from './plan';
import { ruleFor } from './icsRule';
import { timezoneOf } from './icsZone';
import { toClock, toEpochDay, toLocalDate } from './localDate';
import { sessionsOf } from './sessions';
import { isRepeated, toInstant, toWall, type Instant } from './zone';

export interface CalendarSession {
  /** Original local date. */
  date: string;
  startsAt: Instant;
  minutes: number;
  state: string;
  /** What the session is called, where it has a name of its own. */
  title?: string | null;
}

export interface CalendarEntry {
  /** Stays the same for the series' life (RFC 5545 §3.8.4.7). */
  uid: string;
  /** Raised with every change that is sent (§3.8.7.4). */
  sequence: number;
  stamp: Instant;
  title: string;
  description?: string;
  url?: string;
  organizer?: { name: string; email: string };
  attendee?: { name: string; email: string };
  term: Term;
  pattern: MeetingPattern;
  /** The bell times that the pattern speaks of. */
  periods?: readonly Period[];
  /** The sessions as they stand, by their original local date; cancelled ones are left out by EXDATE. */
  sessions: readonly CalendarSession[];
}

/** ical.js does not count the space that a folded line begins with; with it no line has more than 75 octets (§3.1). */
ICAL.foldLength = 74;

/** Text without what has no place in a calendar: controls, line ends other than the plain one (§3.3.11). */
const clean = (text: string) =>
  text.replace(/\r\n?|[\u0085\u2028\u2029]/g, '\n').replace(/[\u0000-\u0009\u000b-\u001f\u007f]/g, ' ');

/** The name that many programs show of a calendar. They read it as text, which ical.js does not know. */
export function nameCalendar(calendar: ICAL.Component, name: string) {
  const escaped = clean(name)
    .replace(/[\\;,]/g, '\\$&')
    .replaceAll('\n', '\\n');
  calendar.updatePropertyWithValue('x-wr-calname', escaped);
}

/**
 * A calendar of series, each one VEVENT by its UID: a rule, EXDATE for dates that do not take place, RDATE for those
 * that the rule does not give (swapped days, sessions added), and a RECURRENCE-ID override for each session whose time,
 * length or name is not the ordinary one. Lines are folded and text escaped by ical.js (RFC 5545 §3.1, §3.3.11).
 */
export function calendarOf(
  entries: readonly CalendarEntry[],
  /** Of a message (RFC 5546); a calendar to keep or subscribe to has none. */
  method: 'REQUEST' | null,
  name?: string,
): string {
  const calendar = frameOf(
    method,
    entries.map((e) => e.term),
  );
  if (name) nameCalendar(calendar, name);
  for (const entry of entries) addEvents(calendar, entry);
  return calendar.toString() + '\r\n';
}

/** An event that stands alone. */
export interface Single {
  uid: string;
  title: string;
  startsAt: Instant;
  endsAt: Instant;
  url?: string;
  description?: string;
}

/** Events that stand alone, in UTC, as a calendar to keep or subscribe to. */
export function singlesOf(events: readonly Single[], name: string, stamp: Instant): string {
  const calendar = frameOf(null, []);
  nameCalendar(calendar, name);
  for (const { uid, title, startsAt, endsAt, url, description } of events) {
    const event = new ICAL.Component('vevent');
    const put = (property: string, value: unknown) =>
      event.updatePropertyWithValue(property, value as string);
    put('uid', uid);
    put('dtstamp', utc(stamp));
    put('dtstart', utc(startsAt));
    put('dtend', utc(endsAt));
    put('summary', clean(title));
    if (description) put('description', clean(description));
    if (url) put('url', url);
    calendar.addSubcomponent(event);
  }
  return calendar.toString() + '\r\n';
}

/** An iTIP request for one series (RFC 5546 §3.2.2). */
export const requestOf = (entry: CalendarEntry): string => calendarOf([entry], 'REQUEST');

/** Some sessions of a series, each as an override of the entry sent before (RFC 5545 §3.8.4.4). */
export function someOf(entry: CalendarEntry, start: string, sessions: readonly CalendarSession[]): string {
  const calendar = frameOf('REQUEST', [entry.term]);
  for (const session of sessions) {
    const override = eventOf(entry, session);
    override.addProperty(localTime('recurrence-id', session.date, start, entry.term.zone));
    calendar.addSubcomponent(override);
  }
  return calendar.toString() + '\r\n';
}

/** What names an entry, without its dates. */
export type EntryName = Pick<
  CalendarEntry,
  'uid' | 'sequence' | 'stamp' | 'title' | 'organizer' | 'attendee' | 'term'
>;

/** Takes sessions, by their original dates, off a calendar; or the whole entry (RFC 5546 §3.2.5). */
export function cancelOf(entry: EntryName, start: string, dates: readonly string[] | 'all'): string {
  const calendar = frameOf('CANCEL', dates === 'all' ? [] : [entry.term]);
  for (const date of dates === 'all' ? [null] : dates) {
    const event = nameOf(entry, entry.title);
    event.updatePropertyWithValue('status', 'CANCELLED');
    if (date) {
      event.addProperty(localTime('dtstart', date, start, entry.term.zone));
      event.addProperty(localTime('recurrence-id', date, start, entry.term.zone));
    }
    addPeople(event, entry);
    calendar.addSubcomponent(event);
  }
  return calendar.toString() + '\r\n';
}

/** An empty calendar with the zones of its terms. */
function frameOf(method: string | null, terms: readonly Term[]): ICAL.Component {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('prodid', '-//Nimble Bell//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  if (method) calendar.updatePropertyWithValue('method', method);
  const zones = new Map<string, Term>();
  for (const term of terms) {
    const known = zones.get(term.zone);
    zones.set(term.zone, known ? spanning(known, term) : term);
  }
  for (const term of zones.values()) calendar.addSubcomponent(timezoneOf(term));
  return calendar;
}

const spanning = (a: Term, b: Term): Term => ({
  ...a,
  firstDay: a.firstDay < b.firstDay ? a.firstDay : b.firstDay,
  lastDay: a.lastDay > b.lastDay ? a.lastDay : b.lastDay,
});

/** The ordinary time of a session, as a clock on its date. */
interface Nominal {
  session: CalendarSession;
  start: string;
  minutes: number;
}

function addEvents(calendar: ICAL.Component, entry: CalendarEntry) {
  const live = nominals(entry);
  if (live.length === 0) return;
  const { zone } = entry.term;
  if (live.length === 1) {
    calendar.addSubcomponent(eventOf(entry, live[0]!.session));
    return;
  }
  const { start, minutes } = commonest(live);
  const first = live[0]!.session.date;
  const wanted = live.map((n) => n.session.date);
  const { rule, dates } = ruleFor(entry.pattern, wanted);
  const event = baseEvent(entry, { date: first, start, minutes, title: null });
  // Without a rule the first date is listed too: readers differ on whether DTSTART counts beside RDATE (§3.8.5.2).
  const ruled = new Set(rule ? dates : wanted.length === 1 ? wanted : []);
  const set = new Set(wanted);
  if (rule) {
    // The end of the last day: readers differ on the instant of a time that a clock change skips or repeats.
    // The whole of the last day, an hour that it has twice as well: programs take the one or the other.
    const until = new Date(toInstant(zone, toEpochDay(wanted.at(-1)!) + 1, 0) - 1000);
    event.addPropertyWithValue('rrule', ICAL.Recur.fromString(`${rule};UNTIL=${compact(until)}`));
    for (const date of dates) if (!set.has(date)) event.addProperty(localTime('exdate', date, start, zone));
  }
  for (const date of wanted) if (!ruled.has(date)) event.addProperty(localTime('rdate', date, start, zone));
  calendar.addSubcomponent(event);
  for (const { session } of live) {
    const own = ownTime(session, zone);
    const ordinary = own.date === session.date && own.start === start && own.minutes === minutes;
    if (ordinary && !session.title && !isRepeated(zone, session.startsAt)) continue;
    const override = eventOf(entry, session);
    override.addProperty(localTime('recurrence-id', session.date, start, zone));
    calendar.addSubcomponent(override);
  }
}

function ownTime(session: CalendarSession, zone: string) {
  const wall = toWall(zone, session.startsAt);
  return { date: toLocalDate(wall.day), start: toClock(wall.minutes), minutes: session.minutes };
}

/** A session by its own time. One whose wall time comes twice is said in UTC, so that it cannot be taken for the other. */
function eventOf(entry: CalendarEntry, session: CalendarSession): ICAL.Component {
  const { zone } = entry.term;
  const event = baseEvent(entry, { ...ownTime(session, zone), title: session.title ?? null });
  if (isRepeated(zone, session.startsAt)) {
    event.removeProperty('dtstart');
    event.updatePropertyWithValue('dtstart', utc(session.startsAt));
  }
  return event;
}

/** The sessions that take place, by original date, each with the time its pattern gives it, or its own if none does. */
function nominals(entry: CalendarEntry): Nominal[] {
  const { term, pattern, periods } = entry;
  const planned = new Map(sessionsOf(term, pattern, undefined, periods).sessions.map((s) => [s.date, s]));
  return entry.sessions
    .filter((s) => s.state !== 'cancelled')
    .map((session) => {
      const { start, minutes } = planned.get(session.date) ?? {
        start: toClock(toWall(term.zone, session.startsAt).minutes),
        minutes: session.minutes,
      };
      return { session, start, minutes };
    })
    .sort((a, b) => (a.session.date < b.session.date ? -1 : 1));
}

/** The clock time that an entry's rule is written with: its overrides are named by it. */
export const ordinaryStart = (entry: CalendarEntry): string => commonest(nominals(entry)).start;

function commonest(live: readonly Nominal[]): Nominal {
  const counts = new Map<string, { n: number; of: Nominal }>();
  for (const nominal of live) {
    const key = `${nominal.start}/${nominal.minutes}`;
    const count = counts.get(key) ?? { n: 0, of: nominal };
    count.n++;
    counts.set(key, count);
  }
  return [...counts.values()].reduce((best, c) => (c.n > best.n ? c : best)).of;
}

interface Time {
  date: string;
  start: string;
  minutes: number;
  title: string | null;
}

function baseEvent(entry: CalendarEntry, time: Time) {
  const event = nameOf(entry, time.title ? `${entry.title}: ${time.title}` : entry.title);
  const put = (name: string, value: unknown) => event.updatePropertyWithValue(name, value as string);
  if (entry.description) put('description', clean(entry.description));
  if (entry.url) {
    put('url', entry.url);
    put('location', entry.url);
  }
  event.addProperty(localTime('dtstart', time.date, time.start, entry.term.zone));
  put('duration', ICAL.Duration.fromSeconds(time.minutes * 60));
  addPeople(event, entry);
  return event;
}

function nameOf(entry: EntryName, summary: string): ICAL.Component {
  const event = new ICAL.Component('vevent');
  const put = (name: string, value: unknown) => event.updatePropertyWithValue(name, value as string);
  put('uid', entry.uid);
  put('sequence', entry.sequence);
  put('dtstamp', utc(entry.stamp));
  put('summary', clean(summary));
  return event;
}

function addPeople(event: ICAL.Component, { organizer, attendee }: EntryName) {
  if (organizer) event.addProperty(addressOf('organizer', organizer));
  if (!attendee) return;
  const property = addressOf('attendee', attendee);
  property.setParameter('role', 'REQ-PARTICIPANT');
  property.setParameter('partstat', 'NEEDS-ACTION');
  property.setParameter('rsvp', 'TRUE');
  event.addProperty(property);
}

function addressOf(name: string, person: { name: string; email: string }): ICAL.Property {
  const property = new ICAL.Property(name);
  property.setParameter('cn', clean(person.name).replaceAll('\n', ' ').replaceAll('"', "'"));
  property.setValue(`mailto:${person.email}`);
  return property;
}

function localTime(name: string, date: string, clock: string, zone: string): ICAL.Property {
  const property = new ICAL.Property(name);
  property.setParameter('tzid', zone);
  property.setValue(ICAL.Time.fromDateTimeString(`${date}T${clock}:00`));
  return property;
}

const compact = (date: Date) => date.toISOString().replace(/[-:]|\.\d+/g, '');

const utc = (instant: Instant) =>
  ICAL.Time.fromDateTimeString(new Date(instant).toISOString().replace(/\.\d+Z$/, 'Z'));

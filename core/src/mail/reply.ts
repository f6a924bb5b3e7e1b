import ICAL from 'ical.js';
import { toEpochDay, toMinutes } from '../calendar/localDate';
import { componentsOf, contentLines } from '../calendar/icsLines';
import { rootsOf } from '../calendar/icsParse';
import { CalendarTimes, textOf } from '../calendar/icsTimes';
import { dateIn } from '../calendar/words';
import { toInstant, type Instant } from '../calendar/zone';
import type { Answer } from './answer';

/** The occurrence that an answer is for: by the instant it is known by, or by its date alone. */
export type Occurrence = { instant: Instant } | { date: string };

/** What an answer to an invitation says (RFC 5546 §3.2.3). */
export interface CalendarReply {
  uid: string;
  /** Null for the whole series. */
  occurrence: Occurrence | null;
  attendee: string;
  answer: Answer;
  /** Of the message that it answers; null where it does not say. */
  sequence: number | null;
  /** When the answer was given (DTSTAMP); null where it does not say. */
  stamp: Instant | null;
}

/** RFC 5545 §3.8.7.4 sets no bound; none that is meant comes near this. */
const MOST_SEQUENCE = 1_000_000_000;

const ANSWERS: Record<string, Answer> = {
  ACCEPTED: 'accepted',
  TENTATIVE: 'tentative',
  DECLINED: 'declined',
};

/** What comes in by mail can be anything: whatever the reader stumbles over is nothing. */
function tried<T>(read: () => T, otherwise: T): T {
  try {
    return read();
  } catch {
    return otherwise;
  }
}

/** The answers in a calendar text, which may hold several calendars; none where it is no reply that can be read. */
export function repliesIn(text: string): CalendarReply[] {
  const calendars = componentsOf(contentLines(text.replace(/^\uFEFF/, '')), 'VCALENDAR');
  return calendars
    .flatMap((lines) => rootsOf(lines.map((l) => l.text).join('\r\n')) ?? [])
    .filter((root) => textOf(root, 'method').toUpperCase() === 'REPLY')
    .flatMap((root) => {
      const times = new CalendarTimes('UTC');
      tried(() => times.learnZones(root), undefined);
      return root.getAllSubcomponents('vevent').flatMap((event) => tried(() => replyOf(event, times), []));
    });
}

function replyOf(event: ICAL.Component, times: CalendarTimes): CalendarReply[] {
  const uid = textOf(event, 'uid');
  const recurrence = event.getFirstProperty('recurrence-id');
  const attendees = event.getAllProperties('attendee');
  // A reply names one person (§3.2.3); with more, nobody's answer is known.
  if (!uid || attendees.length !== 1) return [];
  const attendee = addressIn(String(attendees[0]!.getFirstValue()));
  const answer = ANSWERS[String(attendees[0]!.getParameter('partstat') ?? '').toUpperCase()];
  if (!answer || !attendee) return [];
  const stamp = event.getFirstProperty('dtstamp');
  return [
    {
      uid,
      occurrence: recurrence && occurrenceOf(recurrence, times),
      attendee,
      answer,
      sequence: sequenceOf(textOf(event, 'sequence')),
      stamp: stamp && tried(() => times.starts(stamp, false)[0] ?? null, null),
    },
  ];
}

function sequenceOf(text: string): number | null {
  if (!/^-?\d+$/.test(text)) return null;
  return Math.min(Math.max(0, Number(text)), MOST_SEQUENCE);
}

/** A time with a zone is an instant; one without, or in a zone that nobody knows, says its date. */
function occurrenceOf(property: ICAL.Property, times: CalendarTimes): Occurrence {
  const time = property.getFirstValue() as ICAL.Time;
  const zoned = property.getParameter('tzid') !== undefined || time.zone === ICAL.Timezone.utcTimezone;
  const instant = zoned && !time.isDate ? tried(() => times.starts(property, false)[0] ?? null, null) : null;
  return instant === null ? { date: time.toString().slice(0, 10) } : { instant };
}

/** The address of a `mailto:` URI (RFC 6068): without its query, percent-decoded. */
function addressIn(uri: string): string {
  const bare = uri.replace(/^mailto:/i, '').replace(/\?.*$/, '');
  return tried(() => decodeURIComponent(bare), bare)
    .trim()
    .toLowerCase();
}

/**
 * The session that an answer means: the one whose original time, by the clock that its entry was sent with, is the named
 * instant; or which is then; or else the only one of that day.
 */
export function sessionMeant<S extends { date: string; startsAt: Instant }>(
  occurrence: Occurrence,
  sessions: readonly S[],
  start: string | null,
  zone: string,
): S | null {
  const ofDate = (date: string) => {
    const found = sessions.filter((s) => s.date === date);
    return found.length === 1 ? found[0]! : null;
  };
  if ('date' in occurrence) return ofDate(occurrence.date);
  const { instant } = occurrence;
  const original = (s: S) =>
    start !== null && toInstant(zone, toEpochDay(s.date), toMinutes(start)) === instant;
  return (
    sessions.find(original) ?? sessions.find((s) => s.startsAt === instant) ?? ofDate(dateIn(zone, instant))
  );
}

/** A reply as a calendar program writes it: the event that was asked about, one attendee, and the answer. */
export function replyTo(request: string, attendee: string, answer: Answer): string | null {
  const root = new ICAL.Component(ICAL.parse(request) as unknown[] as never);
  const event = root.getFirstSubcomponent('vevent');
  if (!event || root.getFirstPropertyValue('method') !== 'REQUEST') return null;
  const reply = new ICAL.Component('vcalendar');
  reply.updatePropertyWithValue('prodid', '-//Stand-in calendar//EN');
  reply.updatePropertyWithValue('version', '2.0');
  reply.updatePropertyWithValue('method', 'REPLY');
  for (const zone of root.getAllSubcomponents('vtimezone')) reply.addSubcomponent(zone);
  const answered = new ICAL.Component('vevent');
  for (const name of ['uid', 'sequence', 'dtstamp', 'dtstart', 'recurrence-id', 'organizer', 'summary']) {
    const property = event.getFirstProperty(name);
    if (property) answered.addProperty(property);
  }
  const own = new ICAL.Property('attendee');
  own.setParameter('partstat', answer.toUpperCase());
  own.setValue(`mailto:${attendee}`);
  answered.addProperty(own);
  reply.addSubcomponent(answered);
  return reply.toString() + '\r\n';
}

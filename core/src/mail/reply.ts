import ICAL from 'ical.js';
import type { Answer } from './answer';

/** What an answer to an invitation says (RFC 5546 §3.2.3). */
export interface CalendarReply {
  uid: string;
  /** The original local date of the session it is for; null for the whole series. */
  date: string | null;
  attendee: string;
  answer: Answer;
  sequence: number;
}

/** RFC 5545 §3.8.7.4 sets no bound; none that is meant comes near this. */
const MOST_SEQUENCE = 1_000_000_000;

const ANSWERS: Record<string, Answer> = {
  ACCEPTED: 'accepted',
  TENTATIVE: 'tentative',
  DECLINED: 'declined',
};

/** The answers in a calendar text; none where it is not a reply, or not one that can be read. */
export function repliesIn(text: string): CalendarReply[] {
  // What comes in by mail can be anything: whatever the reader stumbles over is no reply.
  const tried = <T>(read: () => T, otherwise: T): T => {
    try {
      return read();
    } catch {
      return otherwise;
    }
  };
  return tried(() => {
    const root = new ICAL.Component(ICAL.parse(text) as unknown[] as never);
    if (String(root.getFirstPropertyValue('method')).toUpperCase() !== 'REPLY') return [];
    return root.getAllSubcomponents('vevent').flatMap((event) => tried(() => replyOf(event), []));
  }, []);
}

function replyOf(event: ICAL.Component): CalendarReply[] {
  const uid = String(event.getFirstPropertyValue('uid') ?? '');
  const recurrence = event.getFirstPropertyValue('recurrence-id') as ICAL.Time | null;
  const sequence = Number(event.getFirstPropertyValue('sequence') ?? 0);
  const attendees = event.getAllProperties('attendee');
  // A reply names one person (§3.2.3); with more, nobody's answer is known.
  if (!uid || attendees.length !== 1) return [];
  const attendee = String(attendees[0]!.getFirstValue())
    .replace(/^mailto:/i, '')
    .trim()
    .toLowerCase();
  const answer = ANSWERS[String(attendees[0]!.getParameter('partstat') ?? '').toUpperCase()];
  if (!answer || !attendee) return [];
  const date = recurrence ? recurrence.toString().slice(0, 10) : null;
  return [
    {
      uid,
      date,
      attendee,
      answer,
      sequence: Number.isSafeInteger(sequence) && sequence > 0 ? Math.min(sequence, MOST_SEQUENCE) : 0,
    },
  ];
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

import ICAL from 'ical.js';
import { Weekday, type DayOff, type DaySwap, type Term } from './plan';
import { nameCalendar } from './ics';
import { readCalendar } from './icsRead';
import { toEpochDay, toLocalDate } from './localDate';
import type { Instant } from './zone';

/** What an academic calendar would add to a term; each can be taken or left. */
export interface AcademicYear {
  daysOff: DayOff[];
  daySwaps: DaySwap[];
  bad: { title: string; reason: string }[];
  fault: string | null;
}

/** The whole-day events of a calendar as days off within the term, and its day swaps where we wrote it. */
export function readAcademicYear(
  text: string,
  term: Pick<Term, 'zone' | 'firstDay' | 'lastDay'>,
): AcademicYear {
  const { events, wholeDays, bad, fault } = readCalendar(text, term.zone, term.firstDay, term.lastDay);
  const result: AcademicYear = { daysOff: [], daySwaps: [], bad: [...bad], fault };
  for (const { title } of events)
    result.bad.push({ title, reason: 'It has times of day, so it is no day off.' });
  for (const { title, spans, follows } of wholeDays) {
    const name = title.slice(0, 80);
    const inTerm = spans.filter((s) => s.from <= term.lastDay && s.to >= term.firstDay);
    if (!inTerm.length) result.bad.push({ title, reason: 'None of its days lies in the term.' });
    const weekday = Weekday.safeParse(follows);
    for (const { from, to } of inTerm)
      if (weekday.success) result.daySwaps.push({ date: from, follows: weekday.data, name });
      else result.daysOff.push({ from, to, name });
  }
  result.daysOff.sort((a, b) => (a.from < b.from ? -1 : 1));
  return result;
}

/** A term's days off and swaps as whole-day events, which `readAcademicYear` reads back. */
export function writeAcademicYear(term: Term, stamp: Instant): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('prodid', '-//Nimble Bell//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  nameCalendar(calendar, term.name);
  const add = (from: string, to: string, name: string, follows?: string) => {
    const event = new ICAL.Component('vevent');
    const put = (property: string, value: unknown) =>
      event.updatePropertyWithValue(property, value as string);
    put('uid', `${from}-${to}-${follows ?? 'off'}@nimble-bell`);
    put('dtstamp', ICAL.Time.fromDateTimeString(new Date(stamp).toISOString().replace(/\.\d+Z$/, 'Z')));
    put('dtstart', ICAL.Time.fromDateString(from));
    put('dtend', ICAL.Time.fromDateString(toLocalDate(toEpochDay(to) + 1)));
    put('summary', name);
    if (follows) put('x-nb-follows', follows);
    calendar.addSubcomponent(event);
  };
  for (const off of term.daysOff) add(off.from, off.to, off.name);
  for (const swap of term.daySwaps) add(swap.date, swap.date, swap.name, swap.follows);
  return calendar.toString() + '\r\n';
}

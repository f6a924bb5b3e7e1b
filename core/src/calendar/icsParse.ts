import ICAL from 'ical.js';
import { componentsOf, contentLines, impossibleDate, type ContentLine } from './icsLines';

/** What could not be taken, with its reason in words. */
export interface Refused {
  title: string;
  reason: string;
}

const MOST_EVENTS = 50_000;

export interface Parsed {
  roots: ICAL.Component[];
  bad: Refused[];
}

/** The calendars of a text. One event that cannot be parsed, or has an impossible date, does not take the others with it. */
export function parsed(text: string): Parsed | string {
  const bare = text.replace(/^\uFEFF/, '');
  if (!/^\s*BEGIN:VCALENDAR/i.test(bare))
    return 'This is not a calendar: it does not begin with BEGIN:VCALENDAR.';
  const lines = contentLines(bare);
  const events = componentsOf(lines, 'VEVENT');
  const bad: Refused[] = [];
  const refused = new Set<ContentLine[]>();
  const refuse = (event: ContentLine[], reason: string) => {
    const title = event.map((l) => /^SUMMARY[^:]*:(.*)$/i.exec(l.text)?.[1]?.trim()).find(Boolean);
    bad.push({ title: (title || 'An event').slice(0, 90), reason });
    refused.add(event);
  };
  for (const event of events.slice(0, MOST_EVENTS)) {
    const impossible = impossibleDate(event);
    if (impossible) refuse(event, impossible);
  }
  if (events.length > MOST_EVENTS)
    bad.push({
      title: `${events.length - MOST_EVENTS} more events`,
      reason: 'At most 50,000 events are read from one calendar: divide it.',
    });
  const whole = bad.length ? null : rootsOf(bare.trim());
  if (whole) return { roots: whole, bad };
  const wrap = (...parts: ContentLine[][]) =>
    ['BEGIN:VCALENDAR', ...parts.flat().map((l) => l.text), 'END:VCALENDAR'].join('\r\n');
  const zones = componentsOf(lines, 'VTIMEZONE').filter((z) => rootsOf(wrap(z)));
  const possible = events.slice(0, MOST_EVENTS).filter((e) => !refused.has(e));
  for (const event of possible)
    if (!rootsOf(wrap(event)))
      refuse(event, `Line ${event[0]!.line}: it cannot be read, one of its lines is no iCalendar.`);
  const good = possible.filter((e) => !refused.has(e));
  const roots = good.length ? rootsOf(wrap(...zones, ...good)) : [];
  if (!roots || (!good.length && !bad.length))
    return 'This calendar is damaged: its lines do not make whole components.';
  return { roots, bad };
}

export function rootsOf(text: string): ICAL.Component[] | null {
  try {
    const found = ICAL.parse(text) as unknown[];
    const list = Array.isArray(found[0]) ? (found as unknown[][]) : [found];
    return list.map((jcal) => new ICAL.Component(jcal as never));
  } catch {
    return null;
  }
}

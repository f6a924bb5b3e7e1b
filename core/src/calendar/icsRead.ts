import ICAL from 'ical.js';
import { parsed, type Refused } from './icsParse';
import { CalendarTimes, textOf, Unreadable, wallOf } from './icsTimes';
import { toEpochDay, toLocalDate, type EpochDay } from './localDate';
import { readRecurrence, recur } from './recurrence';
import { toInstant, toWall, type Instant } from './zone';

/** One meeting of a calendar's event. */
export interface ReadMeeting {
  startsAt: Instant;
  minutes: number;
}

/** An event with times, its recurrences worked out within the asked days. */
export interface ReadEvent {
  uid: string;
  title: string;
  meetings: ReadMeeting[];
}

/** An event of whole days, first and last included. */
export interface ReadDays {
  uid: string;
  title: string;
  spans: { from: string; to: string }[];
  /** The value of a property of ours, where we wrote the calendar. */
  follows: string | null;
}

export interface ReadCalendar {
  events: ReadEvent[];
  wholeDays: ReadDays[];
  /** What could not be taken, each with its reason. */
  bad: Refused[];
  /** What keeps the whole text from being read. */
  fault: string | null;
}

const MOST_MEETINGS = 1000;
const DAY = 86_400_000;

/**
 * Reads an iCalendar text (RFC 5545): every VEVENT with RRULE, RDATE, EXDATE and RECURRENCE-ID worked out from the day
 * `from` to the day `to`. A time without a zone is taken in `home`; a TZID that is no IANA name is looked up in the text's own
 * VTIMEZONE. Nothing is dropped in silence: an event that cannot be read stands in `bad` with its reason.
 */
export function readCalendar(text: string, home: string, from: string, to: string): ReadCalendar {
  const result: ReadCalendar = { events: [], wholeDays: [], bad: [], fault: null };
  const read = parsed(text);
  if (typeof read === 'string') return { ...result, fault: read };
  result.bad.push(...read.bad);
  const reader = new Reader(home, toEpochDay(from), toEpochDay(to));
  for (const root of read.roots) {
    reader.times.learnZones(root);
    const groups = new Map<string, ICAL.Component[]>();
    for (const [i, event] of root.getAllSubcomponents('vevent').entries()) {
      const uid = textOf(event, 'uid') || `event-${i}`;
      const known = groups.get(uid);
      if (known) known.push(event);
      else groups.set(uid, [event]);
    }
    for (const [uid, group] of groups) {
      try {
        reader.read(uid, group, result);
      } catch (error) {
        const reason = error instanceof Unreadable ? error.message : 'The event cannot be read.';
        result.bad.push({ title: textOf(group[0]!, 'summary') || uid, reason });
      }
    }
  }
  if (!result.events.length && !result.wholeDays.length && !result.bad.length)
    result.fault = 'There is no event in this calendar.';
  return result;
}

class Reader {
  readonly times: CalendarTimes;

  constructor(
    readonly home: string,
    readonly from: EpochDay,
    readonly to: EpochDay,
  ) {
    this.times = new CalendarTimes(home);
  }

  read(uid: string, group: ICAL.Component[], result: ReadCalendar) {
    const masters = group.filter((e) => !e.getFirstProperty('recurrence-id'));
    const lead = masters[0] ?? group[0]!;
    const title = (textOf(lead, 'summary') || 'Without a name').slice(0, 90);
    if (masters.length && masters.every(isCancelled)) throw new Unreadable('It is cancelled.');
    const first = lead.getFirstProperty('dtstart');
    if (!first) throw new Unreadable('It has no DTSTART.');
    const whole = first.type === 'date';
    const found = this.#occurrences(group, whole);
    if (whole) {
      const spans = found
        .map(({ at, length }) => ({ from: at / DAY, to: (at + length) / DAY - 1 }))
        .filter((s) => s.to >= this.from && s.from <= this.to)
        .map((s) => ({ from: toLocalDate(s.from), to: toLocalDate(s.to) }));
      if (!spans.length) throw new Unreadable('None of its days lies in the term.');
      const follows = textOf(lead, 'x-nb-follows') || null;
      result.wholeDays.push({ uid, title, spans, follows });
      return;
    }
    const low = toInstant(this.home, this.from, 0);
    const high = toInstant(this.home, this.to + 1, 0);
    const meetings = found
      .filter(({ at }) => at >= low && at < high)
      .map(({ at, length }) => ({ startsAt: at, minutes: length / 60_000 }));
    if (!meetings.length) throw new Unreadable('None of its dates lies in the term.');
    result.events.push({ uid, title, meetings });
  }

  /**
   * What an event comes to: its recurrences by their original times, then what changes this one and all later ones, then
   * what changes one (§3.2.13, §3.8.4.4). Each override is matched with the original times, in whichever order they stand.
   */
  #occurrences(group: ICAL.Component[], whole: boolean): Occurrence[] {
    const masters = group.filter((e) => !e.getFirstProperty('recurrence-id') && !isCancelled(e));
    const originals = new Map<Instant, Occurrence>();
    for (const master of masters) for (const o of this.#recurrences(master, whole)) originals.set(o.at, o);
    const overrides = latestOf(
      group
        .filter((e) => e.getFirstProperty('recurrence-id'))
        .map((e) => this.#override(e, whole, originals)),
    );
    const found = new Map<Instant, Occurrence | null>(originals);
    for (const range of overrides.filter((o) => o.later).sort((a, b) => a.of - b.of)) {
      found.set(range.of, range.is);
      for (const [key, original] of originals)
        if (key > range.of)
          found.set(key, range.is && { at: range.is.at + (original.at - range.of), length: range.is.length });
    }
    for (const one of overrides.filter((o) => !o.later)) found.set(one.of, one.is);
    return [...found.values()].filter((o) => o !== null).sort((a, b) => a.at - b.at);
  }

  #override(event: ICAL.Component, whole: boolean, originals: ReadonlyMap<Instant, Occurrence>): Override {
    const id = event.getFirstProperty('recurrence-id')!;
    const start = event.getFirstProperty('dtstart');
    const [named] = this.times.starts(id, whole);
    if (named === undefined) throw new Unreadable('A changed occurrence has no time.');
    // A day alone names the occurrence of that day.
    const ofDay = (at: Instant) => toWall(this.home, at).day === named / DAY;
    const of = !whole && id.type === 'date' ? ([...originals.keys()].find(ofDay) ?? named) : named;
    const later = String(id.getParameter('range') ?? '').toUpperCase() === 'THISANDFUTURE';
    const version: [number, string] = [Number(textOf(event, 'sequence')) || 0, textOf(event, 'dtstamp')];
    if (isCancelled(event)) return { of, later, version, is: null };
    if (!start) throw new Unreadable('A changed occurrence has no time.');
    const [at] = this.times.starts(start, whole);
    const length = this.#length(event, whole) ?? originals.get(of)?.length ?? this.#usual(whole);
    return { of, later, version, is: { at: at!, length } };
  }

  #recurrences(event: ICAL.Component, whole: boolean): Occurrence[] {
    const start = event.getFirstProperty('dtstart');
    if (!start) throw new Unreadable('It has no DTSTART.');
    const length = this.#length(event, whole) ?? this.#usual(whole);
    const found = new Map<Instant, Occurrence>();
    const add = (at: Instant, own = length) => found.set(at, { at, length: own });
    const rules = event.getAllProperties('rrule');
    for (const at of rules.length
      ? this.#ruled(rules, start, whole)
      : this.times.starts(start, whole).slice(0, 1))
      add(at);
    for (const property of event.getAllProperties('rdate'))
      for (const [i, at] of this.times.starts(property, whole).entries())
        add(at, this.#periodLength(property.getValues()[i], at, property, whole) ?? length);
    for (const at of this.#ruled(event.getAllProperties('exrule'), start, whole)) found.delete(at);
    for (const property of event.getAllProperties('exdate')) {
      const days = property.type === 'date' && !whole;
      for (const at of this.times.starts(property, whole))
        if (!days) found.delete(at);
        else for (const i of [...found.keys()]) if (this.#dayIn(start, i) === at / DAY) found.delete(i);
    }
    return [...found.values()];
  }

  #dayIn(start: ICAL.Property, instant: Instant) {
    return toWall(this.times.zoneOf(start) ?? this.home, instant).day;
  }

  /** DTSTART and what the rules give from it. */
  #ruled(rules: ICAL.Property[], start: ICAL.Property, whole: boolean): Instant[] {
    const [first] = this.times.walls(start);
    const zone = whole ? null : this.times.zoneOf(start);
    return rules.flatMap((property) => {
      const rule = readRecurrence(String(property.getFirstValue()));
      if (typeof rule === 'string') throw new Unreadable(rule);
      // The days asked for are those of home: a zone far away may be a day off.
      const walls = recur(rule, first!, this.to + 1, Infinity, zone);
      if (!walls) throw new Unreadable('It repeats more often than a timetable does.');
      return walls
        .slice(-MOST_MEETINGS)
        .map((wall) => (whole ? wall.day * DAY : this.times.toInstant(start, wall)));
    });
  }

  #usual(whole: boolean): number {
    return whole ? DAY : 60 * 60_000;
  }

  /** How long an event lasts, ms; null where it does not say. DTEND of whole days is the day after the last (§3.6.1). */
  #length(event: ICAL.Component, whole: boolean): number | null {
    const duration = event.getFirstPropertyValue('duration') as { toSeconds(): number } | null;
    const [start] = this.times.starts(event.getFirstProperty('dtstart')!, whole);
    const end = event.getFirstProperty('dtend');
    if (duration) return this.#checked(duration.toSeconds() * 1000, whole);
    return end ? this.#checked(this.times.starts(end, whole)[0]! - start!, whole) : null;
  }

  /** Of a date that is added as a period (§3.3.9), its own length. */
  #periodLength(value: unknown, at: Instant, property: ICAL.Property, whole: boolean): number | null {
    const { start, end, duration } = value as { start?: unknown; end?: ICAL.Time; duration?: ICAL.Duration };
    if (!start) return null;
    if (duration) return this.#checked(duration.toSeconds() * 1000, whole);
    return end ? this.#checked(this.times.toInstant(property, wallOf(end)) - at, whole) : null;
  }

  #checked(length: number, whole: boolean): number {
    if (whole) return Math.max(1, Math.ceil(length / DAY)) * DAY;
    const minutes = Math.round(length / 60_000);
    if (!(minutes >= 1)) throw new Unreadable('It ends before it begins.');
    if (minutes > 720) throw new Unreadable('It lasts longer than 12 hours.');
    return minutes * 60_000;
  }
}

/** One occurrence: when it begins, of whole days as if in UTC, and how long it lasts, ms. */
interface Occurrence {
  at: Instant;
  length: number;
}

/** What a changed occurrence says: of which original time, whether of all later ones too, and what it is now. */
interface Override {
  of: Instant;
  later: boolean;
  /** SEQUENCE and DTSTAMP. */
  version: [number, string];
  is: Occurrence | null;
}

const isCancelled = (event: ICAL.Component) => textOf(event, 'status').toUpperCase() === 'CANCELLED';

/** Of several versions of one override the latest (RFC 5546 §2.1.5). */
function latestOf(overrides: readonly Override[]): Override[] {
  const latest = new Map<string, Override>();
  for (const o of [...overrides].sort(byVersion)) latest.set(`${o.of} ${o.later}`, o);
  return [...latest.values()];
}

const byVersion = ({ version: [a, at] }: Override, { version: [b, bt] }: Override) =>
  a - b || (at < bt ? -1 : at > bt ? 1 : 0);

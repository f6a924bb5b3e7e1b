import ICAL from 'ical.js';
import { toEpochDay, toLocalDate, type EpochDay } from './localDate';
import { readRecurrence, recur, type WallTime } from './recurrence';
import { isZone, toInstant, toWall, type Instant } from './zone';

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
  bad: { title: string; reason: string }[];
  /** What keeps the whole text from being read. */
  fault: string | null;
}

const MOST_MEETINGS = 1000;
const MOST_EVENTS = 2000;

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
    reader.learnZones(root);
    const groups = new Map<string, ICAL.Component[]>();
    for (const [i, event] of root.getAllSubcomponents('vevent').slice(0, MOST_EVENTS).entries()) {
      const uid = textOf(event, 'uid') || `event-${i}`;
      groups.set(uid, [...(groups.get(uid) ?? []), event]);
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

/** Why an event is left out, in words. */
class Unreadable extends Error {}

interface Parsed {
  roots: ICAL.Component[];
  bad: ReadCalendar['bad'];
}

/** The calendars of a text. One event that cannot be parsed does not take the others with it. */
function parsed(text: string): Parsed | string {
  const bare = text.replace(/^\uFEFF/, '').trim();
  if (!/^BEGIN:VCALENDAR/i.test(bare))
    return 'This is not a calendar: it does not begin with BEGIN:VCALENDAR.';
  const whole = rootsOf(bare);
  if (whole) return { roots: whole, bad: [] };
  const blocks = (name: string) =>
    bare.match(new RegExp(`^BEGIN:${name}[^]*?^END:${name}\\s*$`, 'gim')) ?? [];
  const wrap = (...parts: string[]) => ['BEGIN:VCALENDAR', ...parts, 'END:VCALENDAR'].join('\r\n');
  const zones = blocks('VTIMEZONE').filter((z) => rootsOf(wrap(z)));
  const bad: ReadCalendar['bad'] = [];
  const good = blocks('VEVENT')
    .slice(0, MOST_EVENTS)
    .filter((event) => {
      if (rootsOf(wrap(event))) return true;
      const title = /^SUMMARY[^:]*:(.*)$/im.exec(event)?.[1]?.trim() || 'An event';
      bad.push({ title: title.slice(0, 90), reason: 'It cannot be read: one of its lines is no iCalendar.' });
      return false;
    });
  const roots = good.length ? rootsOf(wrap(...zones, ...good)) : [];
  if (!roots || (!good.length && !bad.length))
    return 'This calendar is damaged: its lines do not make whole components.';
  return { roots, bad };
}

function rootsOf(text: string): ICAL.Component[] | null {
  try {
    const found = ICAL.parse(text) as unknown[];
    const list = Array.isArray(found[0]) ? (found as unknown[][]) : [found];
    return list.map((jcal) => new ICAL.Component(jcal as never));
  } catch {
    return null;
  }
}

function textOf(component: ICAL.Component, name: string): string {
  const value = component.getFirstPropertyValue(name);
  return value === null || value === undefined ? '' : String(value).trim();
}

const LAST_YEAR = 2059;

class Reader {
  readonly #zones = new Map<string, ICAL.Timezone>();

  constructor(
    readonly home: string,
    readonly from: EpochDay,
    readonly to: EpochDay,
  ) {}

  learnZones(root: ICAL.Component) {
    for (const zone of root.getAllSubcomponents('vtimezone')) {
      const id = textOf(zone, 'tzid');
      if (id) this.#zones.set(id, new ICAL.Timezone(zone));
    }
  }

  read(uid: string, group: ICAL.Component[], result: ReadCalendar) {
    const masters = group.filter((e) => !e.getFirstProperty('recurrence-id'));
    const overrides = group.filter((e) => e.getFirstProperty('recurrence-id'));
    const title = (textOf(masters[0] ?? group[0]!, 'summary') || 'Without a name').slice(0, 90);
    const first = (masters[0] ?? group[0]!).getFirstProperty('dtstart');
    if (!first) throw new Unreadable('It has no DTSTART.');
    const whole = first.type === 'date';
    if (whole) {
      const spans = masters.flatMap((m) => this.#spans(m)).filter((s) => s.to >= toLocalDate(this.from));
      if (spans.length)
        result.wholeDays.push({ uid, title, spans, follows: textOf(masters[0]!, 'x-nb-follows') || null });
      return;
    }
    const meetings = new Map<Instant, ReadMeeting>();
    for (const master of masters.filter((m) => textOf(m, 'status').toUpperCase() !== 'CANCELLED'))
      for (const meeting of this.#meetings(master)) meetings.set(meeting.startsAt, meeting);
    for (const override of overrides) this.#override(meetings, override);
    const low = toInstant(this.home, this.from, 0);
    const high = toInstant(this.home, this.to + 1, 0);
    const within = [...meetings.values()].filter((m) => m.startsAt >= low && m.startsAt < high);
    if (within.length)
      result.events.push({ uid, title, meetings: within.sort((a, b) => a.startsAt - b.startsAt) });
    else result.bad.push({ title, reason: 'None of its dates lies in the term.' });
  }

  /** One meeting that is not as the rule has it, or it and all after it (§3.2.13). */
  #override(meetings: Map<Instant, ReadMeeting>, override: ICAL.Component) {
    const id = override.getFirstProperty('recurrence-id')!;
    const [at] = this.#instants(id);
    const start = override.getFirstProperty('dtstart');
    if (at === undefined || !start) throw new Unreadable('A changed occurrence has no time.');
    const [startsAt] = this.#instants(start);
    const cancelled = textOf(override, 'status').toUpperCase() === 'CANCELLED';
    const minutes = this.#minutes(override);
    const later = String(id.getParameter('range') ?? '').toUpperCase() === 'THISANDFUTURE';
    for (const key of [...meetings.keys()]) {
      if (key !== at && !(later && key > at)) continue;
      meetings.delete(key);
      if (!cancelled) {
        const moved = startsAt! + (key - at);
        meetings.set(key === at ? startsAt! : moved, { startsAt: moved, minutes });
      }
    }
    if (!later && !cancelled) meetings.set(startsAt!, { startsAt: startsAt!, minutes });
  }

  #meetings(event: ICAL.Component): ReadMeeting[] {
    const start = event.getFirstProperty('dtstart')!;
    const minutes = this.#minutes(event);
    const instants = new Set(this.#recurring(event, start));
    for (const property of event.getAllProperties('rdate'))
      for (const at of this.#instants(property)) instants.add(at);
    for (const property of event.getAllProperties('exdate')) {
      const whole = property.type === 'date';
      for (const at of this.#instants(property))
        if (!whole) instants.delete(at);
        else
          for (const i of [...instants])
            if (this.#dayIn(start, i) === this.#dayIn(start, at)) instants.delete(i);
    }
    return [...instants].map((startsAt) => ({ startsAt, minutes }));
  }

  #dayIn(start: ICAL.Property, instant: Instant) {
    return toWall(this.#zoneOf(start) ?? this.home, instant).day;
  }

  /** DTSTART and what the rules give from it. */
  #recurring(event: ICAL.Component, start: ICAL.Property): Instant[] {
    const [first] = this.#walls(start);
    const rules = event.getAllProperties('rrule');
    if (rules.length === 0) return [this.#toInstant(start, first!)];
    const zone = this.#zoneOf(start);
    return rules.flatMap((property) => {
      const rule = readRecurrence(String(property.getFirstValue()));
      if (typeof rule === 'string') throw new Unreadable(rule);
      // The days asked for are those of home: a zone far away may be a day off.
      const walls = this.#follow(recur(rule, first!, this.to + 1, Infinity, zone));
      return walls.slice(-MOST_MEETINGS).map((wall) => this.#toInstant(start, wall));
    });
  }

  #follow(walls: WallTime[] | null): WallTime[] {
    if (!walls) throw new Unreadable('It repeats more often than a timetable does.');
    return walls;
  }

  #spans(event: ICAL.Component): { from: string; to: string }[] {
    const start = event.getFirstProperty('dtstart')!;
    const [first] = this.#walls(start);
    const end = event.getFirstProperty('dtend');
    const duration = event.getFirstPropertyValue('duration') as { toSeconds(): number } | null;
    const seconds = duration ? duration.toSeconds() : 86_400;
    // DTEND is the day after the last (§3.6.1).
    const days = end ? this.#walls(end)[0]!.day - first!.day : Math.ceil(seconds / 86_400);
    const rule = event.getFirstPropertyValue('rrule');
    const read = rule ? readRecurrence(String(rule)) : null;
    if (typeof read === 'string') throw new Unreadable(read);
    const starts = read ? this.#follow(recur(read, first!, this.to, 4000)) : [first!];
    const spans = starts
      .filter((s) => s.day <= this.to)
      .map((s) => ({ from: toLocalDate(s.day), to: toLocalDate(s.day + Math.max(1, days) - 1) }));
    return spans;
  }

  #minutes(event: ICAL.Component): number {
    const duration = event.getFirstPropertyValue('duration') as { toSeconds(): number } | null;
    const start = event.getFirstProperty('dtstart');
    const end = event.getFirstProperty('dtend');
    let minutes = 60;
    if (duration) minutes = Math.round(duration.toSeconds() / 60);
    else if (end && start)
      minutes = Math.round((this.#instants(end)[0]! - this.#instants(start)[0]!) / 60_000);
    if (!(minutes >= 1)) throw new Unreadable('It ends before it begins.');
    if (minutes > 720) throw new Unreadable('It lasts longer than 12 hours.');
    return minutes;
  }

  #walls(property: ICAL.Property): WallTime[] {
    return property.getValues().map((value) => {
      const period = value as { start?: ICAL.Time };
      const time = (period.start ?? value) as ICAL.Time;
      if (typeof time?.year !== 'number') throw new Unreadable('A time in it cannot be read.');
      if (time.year < 1900 || time.year > LAST_YEAR)
        throw new Unreadable(`The year ${time.year} is out of reach.`);
      const day = Date.UTC(time.year, time.month - 1, time.day) / 86_400_000;
      const seconds = time.isDate ? 0 : time.hour * 3600 + time.minute * 60 + Math.min(59, time.second);
      if (Number.isNaN(day + seconds)) throw new Unreadable('A time in it cannot be read.');
      return { day, seconds };
    });
  }

  #instants(property: ICAL.Property): Instant[] {
    return this.#walls(property).map((wall) => this.#toInstant(property, wall));
  }

  /** The IANA zone of a property's times; null where only the text's own VTIMEZONE knows it. */
  #zoneOf(property: ICAL.Property): string | null {
    const tzid = property.getParameter('tzid') as string | undefined;
    if (tzid) return isZone(tzid) ? tzid : null;
    const value = property.getFirstValue() as { start?: ICAL.Time; zone?: ICAL.Timezone };
    const zone = ((value?.start ?? value) as ICAL.Time | null)?.zone;
    return zone === ICAL.Timezone.utcTimezone ? 'UTC' : this.home;
  }

  #toInstant(property: ICAL.Property, wall: WallTime): Instant {
    const zone = this.#zoneOf(property);
    if (zone) return toInstant(zone, wall.day, Math.floor(wall.seconds / 60));
    const tzid = String(property.getParameter('tzid'));
    const own = this.#zones.get(tzid);
    if (!own)
      throw new Unreadable(`The time zone "${tzid}" is not known, and the calendar does not describe it.`);
    const at = new Date((wall.day * 86_400 + wall.seconds) * 1000);
    const time = ICAL.Time.fromDateTimeString(at.toISOString().slice(0, 19));
    return at.getTime() - own.utcOffset(time) * 1000;
  }
}

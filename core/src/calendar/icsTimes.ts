import ICAL from 'ical.js';
import type { WallTime } from './recurrence';
import { isZone, toInstant, type Instant } from './zone';

/** Why an event is left out, in words. */
export class Unreadable extends Error {}

const DAY = 86_400_000;
const LAST_YEAR = 2100;

export function textOf(component: ICAL.Component, name: string): string {
  const value = component.getFirstPropertyValue(name);
  return value === null || value === undefined ? '' : String(value).trim();
}

/**
 * The times of a calendar as instants. A time without a zone is taken in `home`; a TZID that is no IANA name is looked up
 * in the VTIMEZONEs that were learnt.
 */
export class CalendarTimes {
  readonly #zones = new Map<string, ICAL.Timezone>();

  constructor(readonly home: string) {}

  learnZones(root: ICAL.Component) {
    for (const zone of root.getAllSubcomponents('vtimezone')) {
      const id = textOf(zone, 'tzid');
      if (id) this.#zones.set(id, new ICAL.Timezone(zone));
    }
  }

  /** When the times of a property begin; of whole days, their days as if in UTC. */
  starts(property: ICAL.Property, whole: boolean): Instant[] {
    return this.walls(property).map((wall) =>
      whole || property.type === 'date' ? wall.day * DAY : this.toInstant(property, wall),
    );
  }

  walls(property: ICAL.Property): WallTime[] {
    return property
      .getValues()
      .map((value) => wallOf(((value as { start?: ICAL.Time }).start ?? value) as ICAL.Time));
  }

  /** The IANA zone of a property's times; null where only the text's own VTIMEZONE knows it. */
  zoneOf(property: ICAL.Property): string | null {
    const tzid = property.getParameter('tzid') as string | undefined;
    if (tzid) return isZone(tzid) ? tzid : null;
    const value = property.getFirstValue() as { start?: ICAL.Time; zone?: ICAL.Timezone };
    const zone = ((value?.start ?? value) as ICAL.Time | null)?.zone;
    return zone === ICAL.Timezone.utcTimezone ? 'UTC' : this.home;
  }

  toInstant(property: ICAL.Property, wall: WallTime): Instant {
    const zone = this.zoneOf(property);
    if (zone) return toInstant(zone, wall.day, Math.floor(wall.seconds / 60));
    const tzid = String(property.getParameter('tzid'));
    const own = this.#zones.get(tzid);
    if (!own)
      throw new Unreadable(`The time zone "${tzid}" is not known, and the calendar does not describe it.`);
    const at = wall.day * DAY + wall.seconds * 1000;
    const offset = (wallTime: number) => own.utcOffset(ICAL.Time.fromJSDate(new Date(wallTime), true)) * 1000;
    const [is, was] = [offset(at), offset(at - DAY)];
    // An hour that comes twice is the first of the two (§3.3.5): it is still as it was.
    return at - (was > is && offset(at - (was - is)) === was ? was : is);
  }
}

export function wallOf(time: ICAL.Time): WallTime {
  if (typeof time?.year !== 'number') throw new Unreadable('A time in it cannot be read.');
  if (time.year < 1900 || time.year > LAST_YEAR)
    throw new Unreadable(`The year ${time.year} is out of reach.`);
  const day = Date.UTC(time.year, time.month - 1, time.day) / DAY;
  const seconds = time.isDate ? 0 : time.hour * 3600 + time.minute * 60 + Math.min(59, time.second);
  if (Number.isNaN(day + seconds)) throw new Unreadable('A time in it cannot be read.');
  return { day, seconds };
}

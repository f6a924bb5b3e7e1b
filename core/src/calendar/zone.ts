import type { EpochDay } from './localDate';

/** An instant, milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

const MINUTE = 60_000;
const DAY = 86_400_000;
/** The years whose rules are worked out; before and after them their first and last offset holds. */
const FIRST_YEAR = 1990;
const LAST_YEAR = 2100;
/** No zone changes its clocks and back within this. Held against Temporal over all zones and years in a test. */
const STEP = 7 * DAY;

/** A zone's offsets in one year of UTC. */
interface Year {
  /** Minutes east of UTC in the last minute before the year begins. */
  first: number;
  /** Instants at which the offset changes, ascending, and the offset from each on. */
  starts: Instant[];
  offsets: number[];
}

/** Instants from one on and before another between which a zone's offset stays. */
interface Calm {
  from: Instant;
  until: Instant;
  offset: number;
}

interface Zone {
  /** Minutes east of UTC, asked of the platform: slow. */
  asked: (instant: Instant) => number;
  years: Map<number, Year>;
  /** The one of the last wall time: the next is most often in it too. */
  calm: Calm;
}
const zones = new Map<string, Zone>();

const clockOf = (zone: string) =>
  new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
  });

/** Whether it is a name of the time zone database (an offset such as `+03:00` is none). */
export function isZone(zone: string): boolean {
  if (!/^[A-Za-z]/.test(zone)) return false;
  try {
    return clockOf(zone).resolvedOptions().timeZone.length > 0;
  } catch {
    return false;
  }
}

/** What a platform with Temporal (ECMA-262, stage 4) has of it that is asked here. */
interface WithTemporal {
  Temporal?: {
    Instant: {
      fromEpochMilliseconds: (instant: Instant) => {
        toZonedDateTimeISO: (zone: string) => { offsetNanoseconds: number };
      };
    };
  };
}

/**
 * How a zone's offset is asked of the platform: by Temporal where there is one. The first clock that a weak phone makes
 * costs it a fifth of a second.
 */
function askedOf(name: string): Zone['asked'] {
  const { Temporal } = globalThis as WithTemporal;
  if (Temporal)
    return (instant) =>
      Math.round(
        Temporal.Instant.fromEpochMilliseconds(instant).toZonedDateTimeISO(name).offsetNanoseconds /
          (MINUTE * 1_000_000),
      );
  const clock = clockOf(name);
  return (instant) => {
    const at: Partial<Record<Intl.DateTimeFormatPartTypes, number>> = {};
    for (const { type, value } of clock.formatToParts(instant)) at[type] = Number(value);
    const local = Date.UTC(at.year!, at.month! - 1, at.day, at.hour, at.minute);
    return Math.round((local - Math.floor(instant / MINUTE) * MINUTE) / MINUTE);
  };
}

function zoneOf(name: string): Zone {
  let zone = zones.get(name);
  if (!zone)
    zones.set(
      name,
      (zone = { asked: askedOf(name), years: new Map(), calm: { from: 0, until: 0, offset: 0 } }),
    );
  return zone;
}

const yearOf = (instant: Instant): number => {
  const year = new Date(instant).getUTCFullYear();
  return year > FIRST_YEAR ? Math.min(year, LAST_YEAR) : FIRST_YEAR;
};

/** A year's changes, found once and kept: looking one up is then a step or two. */
function tableOf(name: string, year: number): Year {
  const zone = zoneOf(name);
  const known = zone.years.get(year);
  if (known) return known;
  const end = Date.UTC(year + 1, 0, 1) - MINUTE;
  let at = Date.UTC(year, 0, 1) - MINUTE;
  let offset = zone.asked(at);
  const table: Year = { first: offset, starts: [], offsets: [] };
  while (at < end) {
    const next = Math.min(at + STEP, end);
    const then = zone.asked(next);
    if (then !== offset) {
      let [before, after] = [at, next];
      while (after - before > MINUTE) {
        const middle = before + Math.floor((after - before) / 2 / MINUTE) * MINUTE;
        if (zone.asked(middle) === offset) before = middle;
        else after = middle;
      }
      table.starts.push(after);
      table.offsets.push(then);
      offset = then;
    }
    at = next;
  }
  zone.years.set(year, table);
  return table;
}

/** Minutes east of UTC in `zone` at `instant`. */
export function offsetAt(zone: string, instant: Instant): number {
  const { first, starts, offsets } = tableOf(zone, yearOf(instant));
  let offset = first;
  for (let i = 0; i < starts.length && starts[i]! <= instant; i++) offset = offsets[i]!;
  return offset;
}

/** The calm around an instant, within its year. */
function calmAt(zone: string, instant: Instant): Calm {
  const year = yearOf(instant);
  const { starts } = tableOf(zone, year);
  const next = starts.findIndex((start) => start > instant);
  return {
    from: (next < 0 ? starts.at(-1) : starts[next - 1]) ?? Date.UTC(year, 0, 1),
    until: next < 0 ? Date.UTC(year + 1, 0, 1) : starts[next]!,
    offset: offsetAt(zone, instant),
  };
}

/**
 * A wall-clock time to its instant. A time that a clock change skips moves forward by the gap; one that it repeats
 * is the first of the two (RFC 5545 §3.3.5, Temporal's `compatible`).
 */
export function toInstant(zone: string, day: EpochDay, minutes: number): Instant {
  const wall = day * DAY + minutes * MINUTE;
  // No offset exceeds a day: a change that could matter is less than a day from the wall time read as UTC.
  const known = zoneOf(zone);
  const { calm } = known;
  if (wall - DAY >= calm.from && wall + DAY < calm.until) return wall - calm.offset * MINUTE;
  known.calm = calmAt(zone, wall);
  let before = offsetAt(zone, wall - DAY);
  const until = yearOf(wall + DAY);
  for (let year = yearOf(wall - DAY); year <= until; year++) {
    const { starts, offsets } = tableOf(zone, year);
    for (let i = 0; i < starts.length; i++) {
      const start = starts[i]!;
      if (start <= wall - DAY) continue;
      // In a gap the wall time read with the later offset lies before the change: the earlier one moves it forward.
      if (wall - before * MINUTE < start || wall - offsets[i]! * MINUTE < start)
        return wall - before * MINUTE;
      before = offsets[i]!;
    }
  }
  return wall - before * MINUTE;
}

/** The local day and minutes after midnight of an instant. */
export function toWall(zone: string, instant: Instant): { day: EpochDay; minutes: number } {
  const local = Math.floor(instant / MINUTE) + offsetAt(zone, instant);
  const day = Math.floor(local / 1440);
  return { day, minutes: local - day * 1440 };
}

/** The offset changes of a zone between two instants: when, and minutes east of UTC before and after. */
export function changesBetween(zone: string, from: Instant, to: Instant) {
  const changes: { at: Instant; before: number; after: number }[] = [];
  let before = offsetAt(zone, from);
  const until = yearOf(to);
  for (let year = yearOf(from); year <= until; year++) {
    const { starts, offsets } = tableOf(zone, year);
    for (const [i, at] of starts.entries()) {
      if (at <= from || at > to) continue;
      changes.push({ at, before, after: offsets[i]! });
      before = offsets[i]!;
    }
  }
  return changes;
}

/** Whether the wall time of an instant comes a second time, the clock being set back after it. */
export function isRepeated(zone: string, instant: Instant): boolean {
  const ahead = changesBetween(zone, instant, instant + 6 * 3_600_000);
  return ahead.some((c) => instant >= c.at - (c.before - c.after) * MINUTE);
}

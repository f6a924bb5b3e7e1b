import type { Instant } from '../calendar/zone';

/** A series as its times and the people who must be there. */
export interface TimedSeries {
  id: string;
  /** Teachers, assistants and students, by any id that is the same in every series. */
  people: readonly string[];
  /** Ascending by start. Ends are the end of teaching: lingering clashes with nothing. */
  sessions: readonly { startsAt: Instant; endsAt: Instant }[];
}

/** Two sessions that people cannot both be at. `a` begins first. */
export interface Clash {
  a: { series: string; startsAt: Instant };
  b: { series: string; startsAt: Instant };
  /** Minutes of overlap. */
  minutes: number;
  /** Who is in both, sorted. */
  people: string[];
}

interface Overlap {
  a: { series: number; startsAt: Instant };
  b: { series: number; startsAt: Instant };
  minutes: number;
}

/**
 * Every pair of overlapping sessions of two series that share a person. Only series that share somebody are compared,
 * and each such pair once, so that the work grows with the enrolments and not with the square of the timetable.
 * Sorted by the first start, then the series' ids.
 */
export function clashesOf(series: readonly TimedSeries[]): Clash[] {
  const hours = series.map(hoursOfWeek);
  const shared = new Map<number, { people: string[]; overlaps: Overlap[] } | null>();
  for (const [person, own] of attendance(series))
    for (let i = 0; i < own.length; i++)
      for (let j = i + 1; j < own.length; j++) {
        const key = own[i]! * series.length + own[j]!;
        let pair = shared.get(key);
        if (pair === undefined) {
          const met = mayMeet(hours[own[i]!]!, hours[own[j]!]!) ? overlapsOf(series, own[i]!, own[j]!) : [];
          pair = met.length ? { people: [], overlaps: met } : null;
          shared.set(key, pair);
        }
        pair?.people.push(person);
      }
  const clashes: Clash[] = [];
  for (const pair of shared.values()) {
    if (!pair) continue;
    const people = pair.people.sort();
    for (const { a, b, minutes } of pair.overlaps)
      clashes.push({
        a: { series: series[a.series]!.id, startsAt: a.startsAt },
        b: { series: series[b.series]!.id, startsAt: b.startsAt },
        minutes,
        people,
      });
  }
  return clashes.sort(byTime);
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
const byTime = (x: Clash, y: Clash) =>
  x.a.startsAt - y.a.startsAt ||
  compare(x.a.series, y.a.series) ||
  x.b.startsAt - y.b.startsAt ||
  compare(x.b.series, y.b.series);

/** Which series each person is in, those in one only left out. */
function attendance(series: readonly TimedSeries[]): Map<string, number[]> {
  const all = new Map<string, number[]>();
  for (const [index, { people }] of series.entries())
    for (const person of people) {
      const own = all.get(person);
      if (!own) all.set(person, [index]);
      else if (own.at(-1) !== index) own.push(index);
    }
  for (const [person, own] of all) if (own.length < 2) all.delete(person);
  return all;
}

const HOUR = 3_600_000;
const HOURS_A_WEEK = 168;

/** The hours of the (UTC) week that a series ever touches, as bits: two series without a common hour never overlap. */
function hoursOfWeek({ sessions }: TimedSeries): Uint32Array {
  const bits = new Uint32Array(6);
  for (const { startsAt, endsAt } of sessions)
    for (let hour = Math.floor(startsAt / HOUR); hour * HOUR < endsAt; hour++) {
      const bit = ((hour % HOURS_A_WEEK) + HOURS_A_WEEK) % HOURS_A_WEEK;
      bits[bit >> 5]! |= 1 << (bit & 31);
    }
  return bits;
}

function mayMeet(a: Uint32Array, b: Uint32Array): boolean {
  for (let i = 0; i < a.length; i++) if (a[i]! & b[i]!) return true;
  return false;
}

function overlapsOf(series: readonly TimedSeries[], x: number, y: number): Overlap[] {
  const found: Overlap[] = [];
  const [xs, ys] = [series[x]!.sessions, series[y]!.sessions];
  let from = 0;
  for (const one of xs) {
    while (from < ys.length && ys[from]!.endsAt <= one.startsAt) from++;
    for (let j = from; j < ys.length && ys[j]!.startsAt < one.endsAt; j++) {
      const other = ys[j]!;
      const ms = Math.min(one.endsAt, other.endsAt) - Math.max(one.startsAt, other.startsAt);
      if (ms <= 0) continue;
      const a = { series: x, startsAt: one.startsAt };
      const b = { series: y, startsAt: other.startsAt };
      const first = one.startsAt - other.startsAt || compare(series[x]!.id, series[y]!.id);
      const minutes = Math.ceil(ms / 60_000);
      found.push(first <= 0 ? { a, b, minutes } : { a: b, b: a, minutes });
    }
  }
  return found;
}

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

/** A series as numbers: its place by id, and its sessions in flat arrays. */
interface Flat {
  rank: number;
  starts: Float64Array;
  ends: Float64Array;
}

/** A clash as numbers, `a` and `b` by place in the list. */
interface Overlap {
  a: number;
  b: number;
  aStart: Instant;
  bStart: Instant;
  minutes: number;
  people: string[];
}

/**
 * Every pair of overlapping sessions of two series that share a person. Only series that share somebody are compared,
 * and each such pair once, so that the work grows with the enrolments and not with the square of the timetable.
 * Sorted by the first start, then the series' ids.
 */
export function clashesOf(
  series: readonly TimedSeries[],
  /** Where only some series are asked about: those pairs that have one of them. */
  about: (id: string) => boolean = () => true,
): Clash[] {
  const flat = flatten(series);
  const hours = hoursOfWeek(series);
  const overlaps: Overlap[] = [];
  const attended = attendance(series);
  const asked = series.map((s) => about(s.id));
  const keys = pairKeys(attended, asked, hours);
  for (let i = 0; i < keys.length;) {
    const pair = Math.floor(keys[i]! / attended.length);
    const first = pair * attended.length;
    const people: string[] = [];
    for (; i < keys.length && keys[i]! < first + attended.length; i++)
      people.push(attended[keys[i]! - first]!.person);
    if (people.length > 1) people.sort();
    const a = Math.floor(pair / series.length);
    addOverlaps(flat, a, pair - a * series.length, people, overlaps);
  }
  return inOrder(overlaps, flat).map(({ a, b, aStart, bStart, minutes, people }) => ({
    a: { series: series[a]!.id, startsAt: aStart },
    b: { series: series[b]!.id, startsAt: bStart },
    minutes,
    people,
  }));
}

/**
 * The pairs of series that share somebody and an hour of the week, each with each such person, as one number: a typed
 * sort brings the same pair together.
 */
function pairKeys(
  attended: readonly Attended[],
  asked: readonly boolean[],
  hours: Uint32Array,
): Float64Array {
  const count = asked.length;
  const keys: number[] = [];
  for (const [person, { series: own }] of attended.entries())
    for (let i = 0; i < own.length; i++)
      for (let j = i + 1; j < own.length; j++)
        if ((asked[own[i]!] || asked[own[j]!]) && mayMeet(hours, own[i]!, own[j]!))
          keys.push((own[i]! * count + own[j]!) * attended.length + person);
  return Float64Array.from(keys).sort();
}

/** By the first start, then the first series, then the second's start and series. */
function inOrder(overlaps: Overlap[], flat: readonly Flat[]): Overlap[] {
  const exact = (x: Overlap, y: Overlap) =>
    x.aStart - y.aStart ||
    flat[x.a]!.rank - flat[y.a]!.rank ||
    x.bStart - y.bStart ||
    flat[x.b]!.rank - flat[y.b]!.rank;
  const first = overlaps.reduce((least, o) => Math.min(least, o.aStart), Infinity);
  const last = overlaps.reduce((most, o) => Math.max(most, o.aStart), -Infinity);
  const largest = ((last - first) / 60_000 + 1) * flat.length * overlaps.length;
  const whole = overlaps.every((o) => (o.aStart - first) % 60_000 === 0);
  if (!whole || largest > Number.MAX_SAFE_INTEGER) return overlaps.sort(exact);
  // Minute, series and place in one number: sorted without asking back, and only what is equal is looked at again.
  const keys = Float64Array.from(
    overlaps,
    (o, i) => (((o.aStart - first) / 60_000) * flat.length + flat[o.a]!.rank) * overlaps.length + i,
  ).sort();
  const sorted: Overlap[] = new Array(keys.length);
  for (let i = 0; i < keys.length;) {
    const group = Math.floor(keys[i]! / keys.length);
    const from = i;
    for (; i < keys.length && Math.floor(keys[i]! / keys.length) === group; i++)
      sorted[i] = overlaps[keys[i]! % keys.length]!;
    if (i - from > 1) {
      const same = sorted.slice(from, i).sort(exact);
      for (let k = from; k < i; k++) sorted[k] = same[k - from]!;
    }
  }
  return sorted;
}

function flatten(series: readonly TimedSeries[]): Flat[] {
  const order = series.map((_, i) => i).sort((x, y) => (series[x]!.id < series[y]!.id ? -1 : 1));
  const ranks = new Int32Array(series.length);
  for (const [rank, i] of order.entries()) ranks[i] = rank;
  return series.map(({ sessions }, i) => ({
    rank: ranks[i]!,
    starts: Float64Array.from(sessions, (s) => s.startsAt),
    ends: Float64Array.from(sessions, (s) => s.endsAt),
  }));
}

interface Attended {
  person: string;
  /** Places in the list, ascending. */
  series: number[];
}

/** Which series each person is in, those in one only left out. */
function attendance(series: readonly TimedSeries[]): Attended[] {
  const all = new Map<string, number[]>();
  for (const [index, { people }] of series.entries())
    for (const person of people) {
      const own = all.get(person);
      if (!own) all.set(person, [index]);
      else if (own.at(-1) !== index) own.push(index);
    }
  const several: Attended[] = [];
  for (const [person, own] of all) if (own.length > 1) several.push({ person, series: own });
  return several;
}

const HOUR = 3_600_000;
const HOURS_A_WEEK = 168;
const WORDS = 6;

/** The hours of the (UTC) week that each series ever touches, as bits: two without a common hour never overlap. */
function hoursOfWeek(series: readonly TimedSeries[]): Uint32Array {
  const bits = new Uint32Array(series.length * WORDS);
  for (const [i, { sessions }] of series.entries())
    for (const { startsAt, endsAt } of sessions)
      for (let hour = Math.floor(startsAt / HOUR); hour * HOUR < endsAt; hour++) {
        const bit = ((hour % HOURS_A_WEEK) + HOURS_A_WEEK) % HOURS_A_WEEK;
        bits[i * WORDS + (bit >> 5)]! |= 1 << (bit & 31);
      }
  return bits;
}

function mayMeet(hours: Uint32Array, a: number, b: number): boolean {
  for (let w = 0; w < WORDS; w++) if (hours[a * WORDS + w]! & hours[b * WORDS + w]!) return true;
  return false;
}

/** Walks two series along each other and adds where they overlap. */
function addOverlaps(flat: readonly Flat[], x: number, y: number, people: string[], into: Overlap[]) {
  const { starts: xs, ends: xe, rank: xRank } = flat[x]!;
  const { starts: ys, ends: ye, rank: yRank } = flat[y]!;
  let from = 0;
  for (let i = 0; i < xs.length; i++) {
    const start = xs[i]!;
    const end = xe[i]!;
    while (from < ys.length && ye[from]! <= start) from++;
    for (let j = from; j < ys.length && ys[j]! < end; j++) {
      const other = ys[j]!;
      const ms = Math.min(end, ye[j]!) - Math.max(start, other);
      if (ms <= 0) continue;
      const minutes = Math.ceil(ms / 60_000);
      const xFirst = start < other || (start === other && xRank < yRank);
      into.push(
        xFirst
          ? { a: x, b: y, aStart: start, bStart: other, minutes, people }
          : { a: y, b: x, aStart: other, bStart: start, minutes, people },
      );
    }
  }
}

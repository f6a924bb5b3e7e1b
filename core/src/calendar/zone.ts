import { Temporal } from 'temporal-polyfill';
import type { EpochDay } from './localDate';

/** An instant, milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

interface OffsetTable {
  /** Instants at which the offset changes, ascending. */
  starts: Float64Array;
  /** Minutes east of UTC from the start with the same index; `first` before the first. */
  offsets: Float64Array;
  first: number;
}

const MINUTE = 60_000;
const RANGE = { from: '1990-01-01T00:00Z', to: '2101-01-01T00:00Z' };
const tables = new Map<string, OffsetTable>();

export function isZone(zone: string): boolean {
  try {
    return new Temporal.ZonedDateTime(0n, zone).timeZoneId.length > 0 && /^[A-Za-z]/.test(zone);
  } catch {
    return false;
  }
}

/** Every offset change of a zone from 1990 to 2100, asked of Temporal once and kept: looking one up is then a binary search. */
function tableOf(zone: string): OffsetTable {
  const known = tables.get(zone);
  if (known) return known;
  const starts: number[] = [];
  const offsets: number[] = [];
  const end = Temporal.Instant.from(RANGE.to).epochMilliseconds;
  let at = Temporal.Instant.from(RANGE.from).toZonedDateTimeISO(zone);
  const first = at.offsetNanoseconds / 60e9;
  for (;;) {
    const next = at.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds >= end) break;
    starts.push(next.epochMilliseconds);
    offsets.push(next.offsetNanoseconds / 60e9);
    at = next;
  }
  const table = { starts: Float64Array.from(starts), offsets: Float64Array.from(offsets), first };
  tables.set(zone, table);
  return table;
}

function indexAt(table: OffsetTable, instant: Instant): number {
  let low = 0;
  let high = table.starts.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (table.starts[mid]! <= instant) low = mid + 1;
    else high = mid;
  }
  return low - 1;
}

const offsetOf = (table: OffsetTable, index: number) => (index < 0 ? table.first : table.offsets[index]!);

/** Minutes east of UTC in `zone` at `instant`. */
export function offsetAt(zone: string, instant: Instant): number {
  const table = tableOf(zone);
  return offsetOf(table, indexAt(table, instant));
}

/**
 * A wall-clock time to its instant. A time that a clock change skips moves forward by the gap; one that it repeats
 * is the first of the two (RFC 5545 §3.3.5, Temporal's `compatible`).
 */
export function toInstant(zone: string, day: EpochDay, minutes: number): Instant {
  const table = tableOf(zone);
  const wall = day * 86_400_000 + minutes * MINUTE;
  // No offset exceeds a day, so the change that could matter is next to the one in force at wall time read as UTC.
  const near = indexAt(table, wall - 86_400_000);
  let before = offsetOf(table, near);
  for (let i = near + 1; i < table.starts.length; i++) {
    const start = table.starts[i]!;
    const after = table.offsets[i]!;
    if (wall - before * MINUTE < start) break;
    // In a gap the wall time read with the later offset lies before the change: the earlier offset moves it forward.
    if (wall - after * MINUTE < start) break;
    before = after;
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
  const table = tableOf(zone);
  const changes: { at: Instant; before: number; after: number }[] = [];
  for (let i = indexAt(table, from) + 1; i < table.starts.length && table.starts[i]! <= to; i++)
    changes.push({ at: table.starts[i]!, before: offsetOf(table, i - 1), after: table.offsets[i]! });
  return changes;
}

/** Whether the wall time of an instant comes a second time, the clock being set back after it. */
export function isRepeated(zone: string, instant: Instant): boolean {
  const ahead = changesBetween(zone, instant, instant + 6 * 3_600_000);
  return ahead.some((c) => instant >= c.at - (c.before - c.after) * MINUTE);
}

import { chapterOf, namesIn, type StoredEvent } from '../room/index';

/** A stretch that was recorded without a break, instants in ms. */
export interface Part {
  from: number;
  until: number;
}

/** Milliseconds of recording in all. */
export const lengthOf = (parts: readonly Part[]): number =>
  parts.reduce((sum, p) => sum + p.until - p.from, 0);

/** Where in the recording an instant of the class lies; one between two parts lies where they meet. */
export function positionOf(parts: readonly Part[], at: number): number {
  let position = 0;
  for (const part of parts) {
    if (at < part.from) return position;
    if (at <= part.until) return position + at - part.from;
    position += part.until - part.from;
  }
  return position;
}

/** When in the class a moment of the recording was, an instant; where two parts meet, the later. */
export function instantAt(parts: readonly Part[], position: number): number {
  let rest = position;
  for (const { from, until } of parts) {
    if (rest < until - from) return from + rest;
    rest -= until - from;
  }
  return parts.at(-1)?.until ?? 0;
}

export interface Gap {
  /** Where the two parts meet, ms into the recording. */
  position: number;
  /** How long was not recorded, or is not told, ms. */
  missing: number;
  why: 'paused' | 'tables' | 'interrupted' | 'cut';
}

/** What was not recorded between parts, and whether a teacher paused, the class was at tables, or the server was away. */
export function gapsOf(parts: readonly Part[], events: readonly StoredEvent[]): Gap[] {
  return parts.slice(1).map((part, i) => {
    const before = parts[i]!;
    const between = (type: 'recordingPaused' | 'tablesLaid') =>
      events.some((e) => e.type === type && e.at >= before.from && e.at <= part.from);
    return {
      position: positionOf(parts, before.until),
      missing: part.from - before.until,
      why: between('recordingPaused') ? 'paused' : between('tablesLaid') ? 'tables' : 'interrupted',
    };
  });
}

export interface Chapter {
  title: string;
  /** ms into the recording. */
  position: number;
}

/** A page that was shown no longer than this was passed, ms. */
const PASSED_MS = 10_000;

/** Chapters from what happened: the beginning, and what each concern of the room says begins one. */
export function chaptersOf(parts: readonly Part[], events: readonly StoredEvent[]): Chapter[] {
  const names = namesIn(events);
  const chapters: Chapter[] = parts.length ? [{ title: 'Class begins', position: 0 }] : [];
  let leafed: Chapter | null = null;
  for (const event of events) {
    const title = event.at < (parts[0]?.from ?? Infinity) ? null : chapterOf(event, names);
    if (!title) continue;
    const position = positionOf(parts, event.at);
    // Whoever leafs quickly passes pages that are no chapters.
    if (event.type === 'slideTurned' && leafed && position - leafed.position < PASSED_MS) chapters.pop();
    chapters.push({ title, position });
    leafed = event.type === 'slideTurned' ? chapters.at(-1)! : null;
  }
  return chapters;
}

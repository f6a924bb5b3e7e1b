import type { StoredEvent } from '../api/room';

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

export interface Gap {
  /** Where the two parts meet, ms into the recording. */
  position: number;
  /** How long was not recorded, ms. */
  missing: number;
  why: 'paused' | 'interrupted';
}

/** What was not recorded between parts, and whether a teacher paused or the server was away. */
export function gapsOf(parts: readonly Part[], events: readonly StoredEvent[]): Gap[] {
  return parts.slice(1).map((part, i) => {
    const before = parts[i]!;
    const paused = events.some(
      (e) => e.type === 'recordingPaused' && e.at >= before.from && e.at <= part.from,
    );
    return {
      position: positionOf(parts, before.until),
      missing: part.from - before.until,
      why: paused ? 'paused' : 'interrupted',
    };
  });
}

export interface Chapter {
  title: string;
  /** ms into the recording. */
  position: number;
}

/** Chapters from what happened: the beginning, each turn of the floor, and where a pause ended. */
export function chaptersOf(parts: readonly Part[], events: readonly StoredEvent[]): Chapter[] {
  const names = new Map<string, string>();
  const chapters: Chapter[] = parts.length ? [{ title: 'Class begins', position: 0 }] : [];
  for (const event of events) {
    if (event.type === 'entered') names.set(event.member, event.name);
    if (event.at < (parts[0]?.from ?? Infinity)) continue;
    const position = positionOf(parts, event.at);
    if (event.type === 'floorGiven')
      chapters.push({ title: `${names.get(event.member)} has the floor`, position });
    if (event.type === 'recordingResumed') chapters.push({ title: 'After the pause', position });
    if (event.type === 'presenting' && event.on)
      chapters.push({ title: `${names.get(event.member)} presents`, position });
  }
  return chapters;
}

/** The recorded minutes of a term and the bytes they take, at a bitrate in kilobits a second. */
export function storageForecast(
  minutes: readonly number[],
  kilobits: number,
): { minutes: number; bytes: number } {
  const total = minutes.reduce((sum, m) => sum + m, 0);
  return { minutes: total, bytes: total * 60 * kilobits * 125 };
}

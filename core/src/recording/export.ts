import { clockWords } from '../calendar/words';
import { CLASS, namesIn, type StoredEvent } from '../room/index';
import { positionOf, type Chapter, type Part } from './timeline';

/** One line of what was written to the class during a recording. */
export interface WrittenLine {
  /** ms into the recording. */
  position: number;
  /** Instant. */
  at: number;
  by: string;
  text: string;
}

/** Whether what was written or drawn was for the whole class, and not for some alone. */
export const isToAll = (e: StoredEvent): boolean =>
  e.type === 'said' ? e.addressee.to === 'class' && e.place === CLASS : !('place' in e) || e.place === CLASS;

/** What was written to the class while it was recorded: nothing that was for some alone. */
export function writtenLines(parts: readonly Part[], events: readonly StoredEvent[]): WrittenLine[] {
  const names = namesIn(events);
  return events.flatMap((e) =>
    e.type === 'said' && isToAll(e) && parts.some((p) => e.at >= p.from && e.at <= p.until)
      ? [{ position: positionOf(parts, e.at), at: e.at, by: names(e.from), text: e.text }]
      : [],
  );
}

/** The same as one reads it: "18:31 Ana Lanyon: …", further lines of a message set in. */
export const writtenText = (lines: readonly WrittenLine[], zone: string): string =>
  lines.map((l) => `${clockWords(l.at, zone)} ${l.by}: ${l.text.replaceAll('\n', '\n  ')}\n`).join('');

const escaped = (text: string) => text.replace(/[=;#\\\n]/g, (c) => `\\${c}`);

/** A recording's title and chapters as FFMETADATA1, for ffmpeg. */
export function chapterMetadata(title: string, chapters: readonly Chapter[], lengthMs: number): string {
  const parts = chapters.map((c, i) => {
    const end = chapters[i + 1]?.position ?? lengthMs;
    return `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${Math.round(c.position)}\nEND=${Math.round(Math.max(end, c.position + 1))}\ntitle=${escaped(c.title)}\n`;
  });
  return `;FFMETADATA1\ntitle=${escaped(title)}\n${parts.join('')}`;
}

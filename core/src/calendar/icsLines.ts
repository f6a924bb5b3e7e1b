import { toEpochDay, toLocalDate } from './localDate';

/** A content line, unfolded (RFC 5545 §3.1), with the number of its first line in the text. */
export interface ContentLine {
  line: number;
  text: string;
}

export function contentLines(text: string): ContentLine[] {
  const lines: ContentLine[] = [];
  for (const [i, raw] of text.split(/\r\n|\n|\r/).entries())
    if (/^[ \t]/.test(raw) && lines.length) lines.at(-1)!.text += raw.slice(1);
    else lines.push({ line: i + 1, text: raw });
  return lines;
}

/** The components of a name, each as its lines from BEGIN to END; what has no END is none. */
export function componentsOf(lines: readonly ContentLine[], name: string): ContentLine[][] {
  const found: ContentLine[][] = [];
  let begun: ContentLine[] | null = null;
  for (const line of lines) {
    const mark = line.text.trim().toUpperCase();
    if (mark === `BEGIN:${name}`) begun = [];
    begun?.push(line);
    if (mark !== `END:${name}` || !begun) continue;
    found.push(begun);
    begun = null;
  }
  return found;
}

const DATED = /^(DTSTART|DTEND|RECURRENCE-ID|RDATE|EXDATE)\b/i;
const VALUE = /^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)Z?)?$/;

/** The first date in a component that is in no calendar, such as 20260230, in words with its line; null where there is none. */
export function impossibleDate(component: readonly ContentLine[]): string | null {
  for (const { line, text } of component)
    for (const value of datesIn(text))
      if (!isPossible(value)) return `Line ${line}: ${value} is no date there is.`;
  return null;
}

function datesIn(text: string): string[] {
  if (DATED.test(text)) return text.slice(text.indexOf(':') + 1).split(/[,/]/);
  const until = /^(?:RRULE|EXRULE)\b.*\bUNTIL=([^;]*)/i.exec(text);
  return until ? [until[1]!] : [];
}

/** What has not the shape of a date is for others to refuse. */
function isPossible(value: string): boolean {
  const match = VALUE.exec(value.trim());
  if (!match) return true;
  const [, year, month, day, hour = '0', minute = '0', second = '0'] = match;
  const date = `${year}-${month}-${day}`;
  const real = +month! >= 1 && +month! <= 12 && +day! >= 1 && toLocalDate(toEpochDay(date)) === date;
  // Sixty seconds are a leap second (§3.3.12).
  return real && +hour < 24 && +minute < 60 && +second <= 60;
}

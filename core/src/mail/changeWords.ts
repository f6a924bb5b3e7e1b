import { countWords, durationWords, instantWords, listWords } from '../calendar/words';
import type { CalendarUpdate, HeldSession } from '../calendar/copies';

/** One session's part in a change, for the person whose calendar it is in. */
export function changeSentence(
  title: string,
  { was, is }: { was: HeldSession | null; is: HeldSession | null },
  zone: string,
  /** Why it is cancelled. */
  reason: string | null = null,
): string {
  const when = (s: HeldSession) => instantWords(s.startsAt, zone);
  if (!was) return `${title}: ${when(is!)} is new`;
  if (!is) return `${title}: ${when(was)} is cancelled${reason ? `: ${reason}` : ''}`;
  const parts: string[] = [];
  if (was.startsAt !== is.startsAt) parts.push(`moves to ${when(is)}`);
  if (was.minutes !== is.minutes)
    parts.push(`lasts ${durationWords(is.minutes)} instead of ${durationWords(was.minutes)}`);
  if (was.title !== is.title) parts.push(is.title ? `is called "${is.title}"` : 'has no name of its own');
  return `${title}: ${when(was)} ${parts.join(', ')}`;
}

/** The way in by telephone in words; null where there is none. */
export const telephoneWords = (number: string | null, pin: string | null): string | null =>
  number && pin ? `By telephone: ${number}, then your PIN ${spokenPin(pin)}.` : null;

/** A PIN in pairs of four, as it is read out. */
export const spokenPin = (pin: string): string => pin.replace(/^(\d{4})(\d{4})$/, '$1 $2');

/** What a letter does to one entry of its reader's calendar. */
export function entryWords({ copy, whole, changes }: CalendarUpdate): string {
  if (!copy.sessions.length) return `${copy.title}, taken back`;
  if (whole) return `${copy.title}, ${countWords(copy.sessions.length, 'session')}`;
  const gone = changes.filter((c) => !c.is).length;
  const parts = [
    ...(changes.length > gone ? [`${countWords(changes.length - gone, 'session')} brought up to date`] : []),
    ...(gone ? [`${countWords(gone, 'session')} taken off`] : []),
  ];
  return `${copy.title}, ${listWords(parts)}`;
}

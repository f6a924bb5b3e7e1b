import {
  cancelOf,
  ordinaryStart,
  requestOf,
  someOf,
  type CalendarEntry,
  type CalendarSession,
  type EntryName,
} from './ics';

/** One session as a person's calendar holds it. */
export interface HeldSession {
  date: string;
  startsAt: number;
  minutes: number;
  title: string | null;
  /** SEQUENCE of the message that told of it as it is: what answers a lower one answers something else. */
  since?: number;
}

/** What a person's calendar holds of one series, by the messages they were sent. */
export interface CalendarCopy {
  uid: string;
  /** Of the last message (RFC 5545 §3.8.7.4). */
  sequence: number;
  title: string;
  url: string;
  /** Not known of entries sent before it was kept. */
  description?: string;
  /** The clock time that the last whole entry was written with, and the original dates it listed. */
  start: string;
  listed: string[];
  sessions: HeldSession[];
}

export interface CalendarMessage {
  method: 'REQUEST' | 'CANCEL';
  content: string;
}

export interface CalendarUpdate {
  messages: CalendarMessage[];
  copy: CalendarCopy;
  /** Whether the entry is sent as a whole, and not only some of its sessions. */
  whole: boolean;
  /** What is different now, by original date: null where there was or is nothing. */
  changes: { date: string; was: HeldSession | null; is: HeldSession | null }[];
}

/** Up to this many sessions are told one by one; beyond, the entry is sent anew. */
const MOST_SINGLES = 6;

/**
 * The smallest messages (RFC 5546) that turn what a calendar holds into the entry as it stands now: nothing, single
 * sessions as overrides and cancellations, or the whole entry. Null where there is nothing to say. Whoever has got
 * them all, in whatever order, and heeds SEQUENCE, holds the plan.
 */
export function updateOf(
  copy: CalendarCopy | null,
  entry: CalendarEntry,
  /** What is said even where nothing changed: the whole entry, or the session of this original date. */
  again: 'whole' | { date: string } | null = null,
): CalendarUpdate | null {
  // No number is used twice for one UID, whichever way an entry went out before: by letter, or by a feed.
  const sequence = Math.max(entry.sequence, (copy?.sequence ?? -1) + 1);
  const was = copy?.sessions ?? [];
  const is = heldOf(entry, was, sequence);
  if (!was.length && !is.length) return null;
  const renamed = copy !== null && isRenamed(copy, entry);
  const changes = changesBetween(was, is);
  const asked = again === 'whole' ? is : is.filter((s) => s.date === again?.date);
  if (!changes.length && !renamed && !asked.length) return null;
  const next = { ...entry, sequence };
  if (!is.length)
    return {
      messages: [{ method: 'CANCEL', content: cancelOf(next, copy!.start, 'all') }],
      copy: { ...copy!, sequence, listed: [], sessions: [] },
      whole: true,
      changes,
    };
  const said = new Set([...changes, ...asked].map((c) => c.date));
  if (copy && !renamed && again !== 'whole' && canTellSingly(copy, said)) {
    const sessions = entry.sessions.filter((s) => s.state !== 'cancelled' && said.has(s.date));
    const gone = changes.filter((c) => !c.is).map((c) => c.date);
    const messages: CalendarMessage[] = [];
    if (sessions.length) messages.push({ method: 'REQUEST', content: someOf(next, copy.start, sessions) });
    if (gone.length) messages.push({ method: 'CANCEL', content: cancelOf(next, copy.start, gone) });
    return { messages, copy: { ...copy, sequence, sessions: is }, whole: false, changes };
  }
  return {
    messages: [{ method: 'REQUEST', content: requestOf(next) }],
    copy: {
      uid: entry.uid,
      sequence,
      title: entry.title,
      url: entry.url ?? '',
      description: entry.description ?? '',
      start: ordinaryStart(entry),
      listed: is.map((s) => s.date),
      sessions: is,
    },
    whole: true,
    changes,
  };
}

/** Takes a whole entry off a calendar: its series is gone, or no longer for this person. Null where it holds nothing. */
export function withdrawalOf(
  copy: CalendarCopy,
  name: Pick<EntryName, 'stamp' | 'organizer' | 'attendee' | 'term'>,
): CalendarUpdate | null {
  if (!copy.sessions.length) return null;
  const sequence = copy.sequence + 1;
  const entry = { ...name, uid: copy.uid, title: copy.title, sequence };
  return {
    messages: [{ method: 'CANCEL', content: cancelOf(entry, copy.start, 'all') }],
    copy: { ...copy, sequence, listed: [], sessions: [] },
    whole: true,
    changes: copy.sessions.map((was) => ({ date: was.date, was, is: null })),
  };
}

/** An override needs the date it overrides in the entry that was sent, and an entry that repeats. */
function canTellSingly(copy: CalendarCopy, dates: ReadonlySet<string>): boolean {
  const listed = new Set(copy.listed);
  return (
    copy.listed.length > 1 &&
    dates.size <= MOST_SINGLES &&
    dates.size * 2 <= Math.max(copy.listed.length, 2) &&
    [...dates].every((date) => listed.has(date))
  );
}

const isRenamed = (copy: CalendarCopy, { title, url = '', description = '' }: CalendarEntry): boolean =>
  copy.title !== title || copy.url !== url || (copy.description ?? description) !== description;

function heldOf(entry: CalendarEntry, was: readonly HeldSession[], sequence: number): HeldSession[] {
  const before = new Map(was.map((s) => [s.date, s]));
  const now = ({ date, startsAt, minutes, title }: CalendarSession): HeldSession => {
    const known = before.get(date);
    const same = known?.startsAt === startsAt && known.minutes === minutes;
    return { date, startsAt, minutes, title: title ?? null, since: same ? (known.since ?? 0) : sequence };
  };
  return entry.sessions
    .filter((s: CalendarSession) => s.state !== 'cancelled')
    .map(now)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
}

function changesBetween(was: readonly HeldSession[], is: readonly HeldSession[]): CalendarUpdate['changes'] {
  const before = new Map(was.map((s) => [s.date, s]));
  const after = new Map(is.map((s) => [s.date, s]));
  return [...new Set([...before.keys(), ...after.keys()])]
    .sort()
    .map((date) => ({ date, was: before.get(date) ?? null, is: after.get(date) ?? null }))
    .filter((c) => !c.was || !c.is || !sameSession(c.was, c.is));
}

const sameSession = (a: HeldSession, b: HeldSession) =>
  a.startsAt === b.startsAt && a.minutes === b.minutes && a.title === b.title;

import type { SomeLimits } from '../limits/schema';
import { allInForce, inForce, type Around, type Layer, type Settings } from '../settings/index';

export type { Around };
export type { SomeWriting, WrittenInput } from './schema';

/** Writing at other times than in class: the same capabilities, before the door opens, before ring-in, after the planned end, and afterwards. */
export interface WritingTimes {
  /** So many hours before the start one may write on the session's page; 0: not. */
  aheadHours: number;
  /** In the room, before a teacher has rung in. */
  early: Around;
  /** In the room, past the planned end. */
  linger: Around;
  /** So many hours after the end one may write on the session's page; 0: not. */
  afterHours: number;
}
export type WritingTime = keyof WritingTimes;

/** What holds where nobody has said anything. */
export const COLLEGE_WRITING: WritingTimes = {
  aheadHours: 0,
  early: 'asInClass',
  linger: 'asInClass',
  afterHours: 0,
};

/** The times in force under these layers. */
export const writingTimes = (layers: readonly Layer[]): WritingTimes =>
  allInForce(layers, 'writing', COLLEGE_WRITING);

/** What a time in the room closes of what may be written in class. */
export function closedAt(around: Around): SomeLimits {
  if (around === 'asInClass') return {};
  const own: SomeLimits = { writeToClass: 'closed', writeToStudents: 'closed' };
  return around === 'closed' ? { ...own, writeToTeachers: 'closed' } : own;
}

/** The same as a room's layer at that time says it, with who set it; null where it is as in class. */
export function timeLimits(layers: readonly Layer[], time: 'early' | 'linger'): Settings['limits'] | null {
  const found = inForce(layers, 'writing', time);
  if (!found || found.value === 'asInClass') return null;
  const { by, at } = found.because;
  return Object.fromEntries(
    Object.entries(closedAt(found.value)).map(([c, value]) => [c, { value, by, at }]),
  );
}

/** A session as far as writing around it goes; instants in ms. */
export interface WritingSession {
  startsAt: number;
  endsAt: number;
  state: string;
  /** It has a start and an end. */
  dated: boolean;
}

const HOUR = 3_600_000;

/** Whether one may write on a session's page now, and until when: `until` is an instant. Null where one may not, or the room is the place. */
export function writingNow(
  { startsAt, endsAt, state, dated }: WritingSession,
  { aheadHours, afterHours }: WritingTimes,
  opensMinutesBefore: number,
  now: number,
): { when: 'ahead' | 'after'; until: number } | null {
  if (!dated) return null;
  if (state === 'held') {
    const until = endsAt + afterHours * HOUR;
    return now < until ? { when: 'after', until } : null;
  }
  if (state !== 'planned' && state !== 'moved') return null;
  const until = startsAt - opensMinutesBefore * 60_000;
  return now >= startsAt - aheadHours * HOUR && now < until ? { when: 'ahead', until } : null;
}

export const AROUND_WORDS: Record<Around, string> = {
  asInClass: 'as in class',
  teachers: 'to those who teach alone',
  closed: 'nothing is written',
};

/** How long one can choose, in hours. */
export const HOURS: readonly { hours: number; words: string }[] = [
  { hours: 0, words: 'not at all' },
  { hours: 1, words: 'an hour' },
  { hours: 24, words: 'a day' },
  { hours: 72, words: 'three days' },
  { hours: 168, words: 'a week' },
  { hours: 672, words: 'four weeks' },
];

const hoursWords = (hours: number) => HOURS.find((h) => h.hours === hours)?.words ?? `${hours} hours`;

/** What can be set, in the order of a day. */
export const WRITING_ROWS: readonly { key: WritingTime; label: string }[] = [
  { key: 'aheadHours', label: 'Before the door opens' },
  { key: 'early', label: 'Before ring-in' },
  { key: 'linger', label: 'After the planned end' },
  { key: 'afterHours', label: 'After the class' },
];

/** "a week"; "to those who teach alone". */
export const valueWords = (value: number | Around): string =>
  typeof value === 'number' ? hoursWords(value) : AROUND_WORDS[value];

/** "writing after the class: a week" */
export function writingWords<K extends WritingTime>(key: K, value: WritingTimes[K]): string {
  const { label } = WRITING_ROWS.find((r) => r.key === key)!;
  return `writing ${label.toLowerCase()}: ${valueWords(value)}`;
}

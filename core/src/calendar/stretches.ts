import type { MeetingPattern, Period } from './plan';
import { toEpochDay, weekdayOf } from './localDate';
import { timeWords } from './style';
import type { Own } from './lay';
import { dateIn, dateWords, listWords, patternWords } from './words';
import { toWall, type Instant } from './zone';

/** A session as far as it says when a series meets. */
export interface Meeting {
  /** Original local date. */
  date: string;
  startsAt: Instant;
  endsAt: Instant;
  state: string;
  own: readonly Own[];
}

/** One weekday's sessions from some date on, when they meet. */
interface Stretch {
  from: Instant;
  day: string;
  /** Clock times from start to end. */
  span: string;
  /** It is not what the pattern says. */
  moved: boolean;
}

const SHORT = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
/** Fewer moved at the end are single changes, not another rule. */
const FEWEST = 2;

/**
 * When a series meets: by its pattern, and where all later sessions of a weekday were moved alike, stretch by stretch:
 * "Tue and Thu 19:00–20:20 until Tue 8 Dec; Tue 19:00–20:20 and Fri 12:00–13:20 from Fri 11 Dec".
 */
export function scheduleWords(
  pattern: MeetingPattern,
  periods: readonly Period[],
  sessions: readonly Meeting[],
  zone: string,
): string {
  const whole = patternWords(pattern, periods);
  if (pattern.kind !== 'weekly') return whole;
  const live = sessions
    .filter((s) => s.state !== 'cancelled' && !s.own.includes('added'))
    .sort((a, b) => a.startsAt - b.startsAt);
  const slots = new Map<number, Meeting[]>();
  for (const s of live) {
    const day = weekdayOf(toEpochDay(s.date));
    slots.set(day, [...(slots.get(day) ?? []), s]);
  }
  const stretches = [...slots.values()].map((slot) => stretchesOf(slot, zone));
  const turns = [...new Set(stretches.flatMap((s) => s.slice(1).map((x) => x.from)))].sort((a, b) => a - b);
  const at = (instant: Instant) =>
    inForceWords(stretches.flatMap((s) => s.filter((x) => x.from <= instant).at(-1) ?? []));
  if (!turns.length) return stretches.some((s) => s[0]?.moved) ? at(Infinity) : whole;
  const said = [live[0]!.startsAt, ...turns].map((from, i, all) => {
    const next = all[i + 1];
    const last = live.filter((s) => next === undefined || s.startsAt < next).at(-1)!;
    const day = (instant: Instant) => dateWords(dateIn(zone, instant));
    if (next === undefined) return `${at(last.startsAt)} from ${day(from)}`;
    return `${at(last.startsAt)} until ${day(last.startsAt)}`;
  });
  return said.join('; ');
}

/** The weekdays that hold at one time, those with the same hours together. */
function inForceWords(stretches: readonly Stretch[]): string {
  const bySpan = new Map<string, string[]>();
  for (const { day, span } of stretches) bySpan.set(span, [...(bySpan.get(span) ?? []), day]);
  return listWords([...bySpan].map(([span, days]) => `${listWords(days)} ${span}`));
}

/** A weekday's times, as each came to hold: sessions that stand alone in another time are single changes. */
function stretchesOf(slot: readonly Meeting[], zone: string): Stretch[] {
  const runs: (Stretch & { count: number })[] = [];
  for (const s of slot) {
    const { day, minutes } = toWall(zone, s.startsAt);
    const end = timeWords(minutes + (s.endsAt - s.startsAt) / 60_000);
    const weekday = SHORT[weekdayOf(day)]!;
    const span = `${timeWords(minutes)}–${end}`;
    const moved = s.own.includes('time') || s.own.includes('length');
    const last = runs.at(-1);
    if (last && isAlike(last, { day: weekday, span })) last.count++;
    else runs.push({ from: s.startsAt, day: weekday, span, moved, count: 1 });
  }
  const lasting = runs.filter((r) => r.count >= FEWEST);
  const kept = lasting.length ? lasting : runs.slice(0, 1);
  return kept
    .filter((r, i) => !i || !isAlike(r, kept[i - 1]!))
    .map((r, i) => (i ? r : { ...r, from: -Infinity }));
}

const isAlike = (a: Pick<Stretch, 'day' | 'span'>, b: Pick<Stretch, 'day' | 'span'>) =>
  a.day === b.day && a.span === b.span;

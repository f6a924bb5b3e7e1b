import type { MeetingPattern, Period } from './plan';
import { toClock, toEpochDay, weekdayOf } from './localDate';
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
  words: string;
  /** It is not what the pattern says. */
  moved: boolean;
}

const SHORT = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
/** Fewer moved at the end are single changes, not another rule. */
const FEWEST = 2;

/**
 * When a series meets: by its pattern, and where all later sessions of a weekday were moved alike, stretch by stretch:
 * "Wed 19:00–20:20 until Wed 9 Dec, Thu 12:00–13:20 from Thu 10 Dec".
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
    listWords([...new Set(stretches.flatMap((s) => s.filter((x) => x.from <= instant).at(-1)?.words ?? []))]);
  if (!turns.length) return stretches.some((s) => s[0]?.moved) ? at(Infinity) : whole;
  const said = [live[0]!.startsAt, ...turns].map((from, i, all) => {
    const next = all[i + 1];
    const last = live.filter((s) => next === undefined || s.startsAt < next).at(-1)!;
    const day = (instant: Instant) => dateWords(dateIn(zone, instant));
    if (next === undefined) return `${at(last.startsAt)} from ${day(from)}`;
    return `${at(last.startsAt)} until ${day(last.startsAt)}`;
  });
  return said.join(', ');
}

/** A weekday's times, as each came to hold: sessions that stand alone in another time are single changes. */
function stretchesOf(slot: readonly Meeting[], zone: string): Stretch[] {
  const runs: (Stretch & { count: number })[] = [];
  for (const s of slot) {
    const { day, minutes } = toWall(zone, s.startsAt);
    const end = toClock(minutes + (s.endsAt - s.startsAt) / 60_000);
    const words = `${SHORT[weekdayOf(day)]} ${toClock(minutes)}–${end}`;
    const moved = s.own.includes('time') || s.own.includes('length');
    const last = runs.at(-1);
    if (last?.words === words) last.count++;
    else runs.push({ from: s.startsAt, words, moved, count: 1 });
  }
  const lasting = runs.filter((r) => r.count >= FEWEST);
  const kept = lasting.length ? lasting : runs.slice(0, 1);
  return kept
    .filter((r, i) => r.words !== kept[i - 1]?.words)
    .map((r, i) => (i ? r : { ...r, from: -Infinity }));
}

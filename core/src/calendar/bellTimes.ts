import type { BellTimes, MeetingPattern, PatternDay, Period } from './plan';
import { toMinutes } from './localDate';

/** A weekday's time of day: minutes after midnight, and how long. */
export interface TimeOfDay {
  startMinutes: number;
  minutes: number;
}

const byStart = (periods: readonly Period[]) => [...periods].sort((a, b) => (a.start < b.start ? -1 : 1));

/** The time that consecutive periods make up, or in words why they make up none. */
export function timeOfPeriods(names: readonly string[], periods: readonly Period[]): TimeOfDay | string {
  const sorted = byStart(periods);
  const places = names.map((name) => sorted.findIndex((p) => p.name === name));
  const unknown = names.find((_, i) => places[i]! < 0);
  if (unknown !== undefined) return `There is no period "${unknown}" in the bell times.`;
  for (let i = 1; i < places.length; i++)
    if (places[i] !== places[i - 1]! + 1)
      return `${names[i]} does not follow ${names[i - 1]}: a session takes consecutive periods.`;
  const startMinutes = toMinutes(sorted[places[0]!]!.start);
  return { startMinutes, minutes: toMinutes(sorted[places.at(-1)!]!.end) - startMinutes };
}

/** The time of a pattern's weekday, or in words what is wrong with its periods. */
export function timeOfDay(day: PatternDay, periods: readonly Period[]): TimeOfDay | string {
  if ('periods' in day) return timeOfPeriods(day.periods, periods);
  return { startMinutes: toMinutes(day.start), minutes: day.minutes };
}

/** The periods that a pattern speaks of. */
export function periodsFor(pattern: MeetingPattern, sets: readonly BellTimes[]): readonly Period[] {
  if (pattern.kind !== 'weekly') return [];
  return sets.find((s) => s.id === pattern.bellTimes)?.periods ?? [];
}

/** What is wrong with a pattern's periods, by the index of its day. */
export function periodFaults(
  pattern: MeetingPattern,
  periods: readonly Period[],
): { day: number; message: string }[] {
  if (pattern.kind !== 'weekly') return [];
  return pattern.days.flatMap((d, day) => {
    const time = timeOfDay(d, periods);
    return typeof time === 'string' ? [{ day, message: time }] : [];
  });
}

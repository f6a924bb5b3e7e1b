/** Dates as whole days since 1970-01-01, so that a term is walked with integer arithmetic. */
export type EpochDay = number;

/** From Monday, as ISO 8601 numbers them. */
export const WEEKDAYS = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
] as const;

const MS_PER_DAY = 86_400_000;
const FORMAT = /^(\d{4})-(\d{2})-(\d{2})$/;

export function isLocalDate(text: string): boolean {
  const parts = FORMAT.exec(text);
  if (!parts) return false;
  const [, y, m, d] = parts.map(Number) as [number, number, number, number];
  const date = new Date(Date.UTC(y, m - 1, d));
  return date.getUTCMonth() === m - 1 && date.getUTCDate() === d && y >= 1900;
}

/** `YYYY-MM-DD` to epoch day. The text must be a date: check it with `isLocalDate` at the edge. */
export function toEpochDay(date: string): EpochDay {
  return Date.UTC(+date.slice(0, 4), +date.slice(5, 7) - 1, +date.slice(8, 10)) / MS_PER_DAY;
}

const texts = new Map<EpochDay, string>();

export function toLocalDate(day: EpochDay): string {
  let text = texts.get(day);
  if (text === undefined) {
    text = new Date(day * MS_PER_DAY).toISOString().slice(0, 10);
    if (texts.size > 20_000) texts.clear();
    texts.set(day, text);
  }
  return text;
}

/** 0 is Monday, 6 is Sunday (ISO 8601 order). 1970-01-01 was a Thursday. */
export function weekdayOf(day: EpochDay): number {
  return (((day + 3) % 7) + 7) % 7;
}

export const mondayOf = (day: EpochDay): EpochDay => day - weekdayOf(day);

/** `HH:MM` to minutes after midnight. */
export const toMinutes = (clock: string): number => +clock.slice(0, 2) * 60 + +clock.slice(3, 5);

/** Minutes after midnight to `HH:MM`, wrapping past midnight. */
export function toClock(minutes: number): string {
  const m = ((minutes % 1440) + 1440) % 1440;
  return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
}

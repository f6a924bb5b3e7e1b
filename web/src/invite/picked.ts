import { clockWords, dateIn, toEpochDay, toInstant, toMinutes } from '@nimble-bell/core/calendar';

/** A picked date and time, `YYYY-MM-DD HH:mm:ss`, as an instant of a zone. */
export const instantOf = (picked: string, zone: string): number =>
  toInstant(zone, toEpochDay(picked.slice(0, 10)), toMinutes(picked.slice(11, 16)));

/** An instant as a picker shows it; null where there is none. */
export const pickedOf = (at: number | null, zone: string): string | null =>
  at === null ? null : `${dateIn(zone, at)} ${clockWords(at, zone)}:00`;

import type { AcademicYear, TimetablePreview } from '@nimble-bell/core/calendar';
import type { Term } from '@nimble-bell/core/api';
import { AskWorker } from '../app/askWorker';

/** A calendar or table as it came: pasted, or the bytes of a file. */
export interface CalendarOrder {
  as: 'timetable' | 'days off';
  given: string | Uint8Array;
  term: Term;
}

/** Reads a calendar away from the page: fifty thousand events and no stutter. */
async function read<T>(order: CalendarOrder): Promise<T> {
  const worker = new AskWorker<CalendarOrder>(
    new Worker(new URL('./calendarWorker.ts', import.meta.url), { type: 'module' }),
  );
  try {
    return await worker.ask<T>(order);
  } finally {
    worker.close();
  }
}

export const timetableFrom = (given: CalendarOrder['given'], term: Term) =>
  read<TimetablePreview>({ as: 'timetable', given, term });
export const daysOffFrom = (given: CalendarOrder['given'], term: Term) =>
  read<AcademicYear>({ as: 'days off', given, term });

import { z } from 'zod';

/** `PARTSTAT` of RFC 5545 §3.2.12, as far as a person can answer. */
export const Answer = z.enum(['accepted', 'tentative', 'declined']);
export type Answer = z.infer<typeof Answer>;

/** An answer to a series, or to the session of one original date of it. */
export interface Reply {
  seriesId: string;
  date: string | null;
  answer: Answer;
  at: number;
}

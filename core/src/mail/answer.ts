import { z } from 'zod';

/** `PARTSTAT` of RFC 5545 §3.2.12, as far as a person can answer. */
export const Answer = z.enum(['accepted', 'tentative', 'declined']);
export type Answer = z.infer<typeof Answer>;

/** An answer to a series, or to one session of it, by its original date and its place among those of that date. */
export interface Reply {
  seriesId: string;
  date: string | null;
  take: number;
  answer: Answer;
  at: number;
  /** It was given before what it is an answer to was changed. */
  outdated: boolean;
  /** It came from the address that it is an answer of. */
  verified: boolean;
}

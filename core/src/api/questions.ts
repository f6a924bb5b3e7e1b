import { z } from 'zod';
import type { Answer, Question as Asked, Tally } from '../questions/index';
import { Question } from '../questions/schema';
import { prose } from '../text/index';

/** A question that is prepared before class: by a course, for as many terms as it is taught. */
export const PreparedInput = z.object({
  question: Question.refine((q) => q.text.trim() !== '', 'Write what you ask.'),
  /** For which part of the run sheet, by its title; empty for any. */
  part: prose(90),
  /** How long it is answered, s; null until it is closed. */
  seconds: z.int().min(5).max(3600).nullable(),
});
export type PreparedInput = z.infer<typeof PreparedInput>;

export interface PreparedQuestion extends PreparedInput {
  id: string;
  /** When the class was asked last, an instant. */
  askedAt: number | null;
  by: string;
}

/** A question that a class was asked, afterwards, as those who teach have it. */
export interface AskedInfo {
  id: number;
  at: number;
  question: Asked;
  rounds: {
    tally: Tally;
    /** Who answered what; null where no names are kept. */
    answers: { member: string; name: string; answer: Answer }[] | null;
  }[];
}

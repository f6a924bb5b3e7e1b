import { z } from 'zod';
import { MOST_OPTIONS, QUESTION_KINDS, questionFault, type Question as Asked } from './kinds';

export const QuestionKind = z.enum(QUESTION_KINDS);

export const Answer = z.union([
  z.number(),
  z
    .array(
      z
        .int()
        .min(0)
        .max(MOST_OPTIONS - 1),
    )
    .max(MOST_OPTIONS),
  z.string().trim().min(1).max(300),
]);

const shape = z.object({
  text: z.string().trim().max(500),
  kind: QuestionKind,
  options: z.array(z.string().trim().max(200)).max(MOST_OPTIONS),
  right: Answer.nullable(),
  anonymous: z.boolean(),
});

/** A question as it is given to the server. */
export const Question = shape.superRefine((question: Asked, context) => {
  const fault = questionFault(question);
  if (fault) context.addIssue({ code: 'custom', message: fault });
});

/** As it was stored: what was asked once is never refused. */
export const StoredQuestion = shape;

export const Tally = z.object({
  answered: z.number(),
  counts: z.array(z.number()).optional(),
  places: z.array(z.number()).optional(),
  values: z.array(z.number()).optional(),
  groups: z.array(z.object({ text: z.string(), count: z.number() })).optional(),
});

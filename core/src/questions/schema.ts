import { z } from 'zod';
import { tidyProse } from '../text/index';
import { MOST_OPTIONS, QUESTION_KINDS, questionFault, type Question as Asked } from './kinds';

export const QuestionKind = z.enum(QUESTION_KINDS);

const Options = z
  .array(
    z
      .int()
      .min(0)
      .max(MOST_OPTIONS - 1),
  )
  .max(MOST_OPTIONS);

/** As it was stored. */
export const Answer = z.union([z.number(), Options, z.string().max(300)]);

/** Words as they are kept: nothing in them that cannot be seen, or turns about what is around them. */
const words = (longest: number, shortest = 0) =>
  z.string().transform(tidyProse).pipe(z.string().trim().min(shortest).max(longest));

/** An answer as it is given to the server. */
export const GivenAnswer = z.union([z.number(), Options, words(300, 1)]);

const shape = z.object({
  text: z.string().trim().max(500),
  kind: QuestionKind,
  options: z.array(z.string().trim().max(200)).max(MOST_OPTIONS),
  right: Answer.nullable(),
  anonymous: z.boolean(),
});

/** A question as it is given to the server. */
export const Question = z
  .object({
    ...shape.shape,
    text: words(500),
    options: z.array(words(200)).max(MOST_OPTIONS),
    right: GivenAnswer.nullable(),
  })
  .superRefine((question: Asked, context) => {
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

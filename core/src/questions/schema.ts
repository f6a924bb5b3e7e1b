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

const Share = z.number().min(0).max(1);
/** A place on a picture; finer than a thousandth nobody means. */
const OnPicture = z.object({ x: Share, y: Share });

/** As it was stored. */
export const Answer = z.union([z.number(), Options, z.string().max(300), OnPicture]);

/** Words as they are kept: nothing in them that cannot be seen, or turns about what is around them. */
const words = (longest: number, shortest = 0) =>
  z.string().transform(tidyProse).pipe(z.string().trim().min(shortest).max(longest));

/** An answer as it is given to the server. */
export const GivenAnswer = z.union([z.number(), Options, words(300, 1), OnPicture]);

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
export const StoredQuestion = shape.extend({
  picture: z
    .union([
      z.object({
        of: z.literal('page'),
        deck: z.object({
          id: z.string(),
          name: z.string(),
          kind: z.enum(['pdf', 'picture']),
          pages: z.int(),
        }),
        page: z.int(),
      }),
      z.object({ of: z.literal('board'), side: z.int() }),
    ])
    .optional(),
});

export const Tally = z.object({
  answered: z.number(),
  counts: z.array(z.number()).optional(),
  places: z.array(z.number()).optional(),
  values: z.array(z.number()).optional(),
  groups: z.array(z.object({ text: z.string(), count: z.number() })).optional(),
  points: z.array(OnPicture).optional(),
});

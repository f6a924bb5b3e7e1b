import { z } from 'zod';
import { WEEKDAYS } from '../calendar/localDate';

/** What somebody chose of how days and hours are written; what is left out is as their browser has it. */
const OwnStyle = z.strictObject({
  hours: z.enum(['24', '12']).optional(),
  order: z.enum(['day first', 'month first']).optional(),
  weekBegins: z.enum(WEEKDAYS).optional(),
});

/** A person's own ways, on every device of theirs. */
export const Preferences = z.strictObject({
  style: OwnStyle.default({}),
  /** Keys of the room by what they do: one sign, or null for none. What is not named is as usual. */
  keys: z
    .record(
      z.string().regex(/^[a-z]{1,20}$/, 'This is nothing that a key does.'),
      z
        .string()
        .regex(/^\S{1,2}$/u, 'Choose one letter, digit or sign.')
        .nullable(),
    )
    .refine((keys) => Object.keys(keys).length <= 60, 'There are not so many keys.')
    .default({}),
});
export type Preferences = z.infer<typeof Preferences>;

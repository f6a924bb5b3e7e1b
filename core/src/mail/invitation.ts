import { z } from 'zod';
import { line, tidyProse } from '../text';

const Id = z.string().min(1).max(20);

/** The words of a course's invitation, with fields in braces. */
export const InvitationTemplate = z.object({
  subject: line('Give a subject.', 200),
  text: z
    .string()
    .transform(tidyProse)
    .pipe(z.string().trim().min(1, 'Write what they are to read.').max(8000, 'At most 8,000 characters.')),
});
export type InvitationTemplate = z.infer<typeof InvitationTemplate>;

/** A time before each session at which those whom it is for are invited to it: everybody, or some of them. */
export const InviteBefore = z.object({
  minutes: z
    .int('Give whole minutes.')
    .min(1)
    .max(14 * 24 * 60),
  members: z.array(Id).min(1).max(5000).nullable().default(null),
  groups: z.array(z.string().max(40)).min(1).max(200).nullable().default(null),
});
export type InviteBefore = z.infer<typeof InviteBefore>;

/** Minutes before each session at which those whom it is for are reminded. */
export const Reminders = z.object({
  minutes: z
    .array(
      z
        .int('Give whole minutes.')
        .min(1)
        .max(14 * 24 * 60),
    )
    .max(5, 'At most five reminders a session.')
    .refine((m) => new Set(m).size === m.length, 'Each reminder once.'),
});

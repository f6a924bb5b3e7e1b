import { z } from 'zod';
import { Addressee } from '../room/talk/schema';
import { tidyProse } from '../text/index';
import { AROUND } from '../settings/index';

const hours = z.int('Give whole hours.').min(0).max(672, 'At most four weeks.');

/** What each time can be. */
export const WritingValues = z.object({
  aheadHours: hours,
  early: z.enum(AROUND),
  linger: z.enum(AROUND),
  afterHours: hours,
});
export const SomeWriting = WritingValues.partial();
export type SomeWriting = z.infer<typeof SomeWriting>;

/** What a place says of it; null takes back what was said there. */
export const WritingAtInput = z
  .object({
    aheadHours: hours.nullable(),
    early: z.enum(AROUND).nullable(),
    linger: z.enum(AROUND).nullable(),
    afterHours: hours.nullable(),
  })
  .partial();

/** Something written on a session's page. */
export const WrittenInput = z.object({
  addressee: Addressee,
  text: z
    .string()
    .transform(tidyProse)
    .pipe(z.string().trim().min(1, 'Write something first.').max(4000, 'At most 4,000 characters.')),
});
export type WrittenInput = z.infer<typeof WrittenInput>;

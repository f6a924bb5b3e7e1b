import { z } from 'zod';
import { Entry } from '../settings/index';

/** What a course says of its door, in part or whole. */
export const DoorInput = z
  .object({
    opensMinutesBefore: z.int('Give whole minutes.').min(0).max(240, 'At most 240 minutes.'),
    teacherFirst: z.boolean(),
    classList: Entry.exclude(['not']),
    guests: Entry,
    aloneMinutes: z.int('Give whole minutes.').min(1).max(60, 'At most 60 minutes.'),
    lateMinutes: z.int('Give whole minutes.').min(0).max(240, 'At most 240 minutes.'),
    late: Entry,
  })
  .partial()
  .refine((door) => Object.keys(door).length > 0, 'Say something of the door.');
export type DoorInput = z.infer<typeof DoorInput>;

import { z } from 'zod';
import { DoorValues } from '../settings/index';
import { CAME, WAYS } from './comers';

export const CameSchema = z.enum(CAME);
export const WaySchema = z.enum(WAYS);

/** What a course says of its door, in part or whole. */
export const DoorInput = DoorValues.partial().refine(
  (door) => Object.keys(door).length > 0,
  'Say something of the door.',
);
export type DoorInput = z.infer<typeof DoorInput>;

/** What a place says of its door; null takes back what was said there. */
export const DoorAtInput = z
  .object(
    Object.fromEntries(Object.entries(DoorValues.shape).map(([key, value]) => [key, value.nullable()])) as {
      [K in keyof typeof DoorValues.shape]: z.ZodNullable<(typeof DoorValues.shape)[K]>;
    },
  )
  .partial();
export type DoorAtInput = z.infer<typeof DoorAtInput>;

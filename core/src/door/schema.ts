import type { z } from 'zod';
import { DoorValues } from '../settings/index';

/** What a course says of its door, in part or whole. */
export const DoorInput = DoorValues.partial().refine(
  (door) => Object.keys(door).length > 0,
  'Say something of the door.',
);
export type DoorInput = z.infer<typeof DoorInput>;

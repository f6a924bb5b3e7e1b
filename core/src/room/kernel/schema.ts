import { z } from 'zod';

/** A command or an event: its type, and what belongs to it. */
export const message = <T extends string, S extends z.ZodRawShape>(type: T, shape: S) =>
  z.object({ type: z.literal(type), ...shape });

export const MemberId = z.string().min(1).max(40);
/** A file or link of the course. */
export const MaterialId = z.string().min(1).max(40);

/** Where in a room something is: the class, or one of its small tables. */
export const Place = z.string().min(1).max(40);
export type Place = z.infer<typeof Place>;

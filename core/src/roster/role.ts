import { z } from 'zod';

/** What somebody is in a course. */
export const Role = z.enum(['teacher', 'assistant', 'student', 'guest', 'observer']);
export type Role = z.infer<typeof Role>;

export const teaches = (role: Role): boolean => role === 'teacher' || role === 'assistant';

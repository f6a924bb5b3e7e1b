import { z } from 'zod';

/** One thing a student may do in the room. Writing to a teacher is its own capability. */
export const Capability = z.enum([
  'speak',
  'camera',
  'present',
  'draw',
  'writeToClass',
  'writeToTeachers',
  'writeToStudents',
]);
export type Capability = z.infer<typeof Capability>;

/** `byHand`: raise a hand, a teacher gives the floor to that one person, and it ends with the turn. */
export const Permission = z.enum(['closed', 'byHand', 'open']);
export type Permission = z.infer<typeof Permission>;

export const Limits = z.record(Capability, Permission);
export type Limits = z.infer<typeof Limits>;

export const Role = z.enum(['teacher', 'assistant', 'student', 'guest', 'observer']);
export type Role = z.infer<typeof Role>;

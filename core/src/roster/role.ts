/** What somebody is in a course. */
export const ROLES = ['teacher', 'assistant', 'student', 'guest', 'observer'] as const;
export type Role = (typeof ROLES)[number];

export const teaches = (role: Role): boolean => role === 'teacher' || role === 'assistant';

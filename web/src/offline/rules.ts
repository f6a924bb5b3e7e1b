/** A build as the service worker knows it. */
export interface Build {
  id: string;
  /** Addresses of what a student's page is made of. */
  files: string[];
}

/** The answers that are kept for when there is no line: the times of a student's term, and who they are. */
export const keepsAnswer = (path: string): boolean => path === '/api/my-course' || path === '/api/me';

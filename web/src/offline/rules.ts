/** A build as the service worker knows it. */
export interface Build {
  id: string;
  /** Addresses of what a student's page is made of. */
  files: string[];
}

/**
 * The answers that are kept for when there is no line: the times of a student's term, and how they read. Asked by their
 * link only: what an account is told is gone with its sign-in, on a machine that others use too.
 */
export const keepsAnswer = (path: string, authorization: string | null): boolean =>
  (authorization ?? '').startsWith('Link ') && (path === '/api/my-course' || path === '/api/me');

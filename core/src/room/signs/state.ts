import type { Sign } from './schema';

/** The sign that each gave last, and when. */
export type SignsState = Readonly<Record<string, { sign: Sign; at: number }>>;

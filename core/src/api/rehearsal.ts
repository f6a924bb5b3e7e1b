import type { Tried } from '../rehearsal/tried';

/** How a rehearsal goes, for whoever rehearses. */
export interface RehearsalInfo {
  /** The session that is rehearsed, and its course. */
  of: string;
  course: string;
  /** How many stand-ins there are. */
  size: number;
  /** How often they did what is closed, and were refused; null where it is not known here. */
  refused: number | null;
  tried: Tried[];
  /** The links of those stand-ins whose sound and picture the page makes. */
  lent: string[];
}

import type { AfterRules, TakenPart, Thoughts } from '../after/index';

/** How much each took part, session by session: everybody's for those who teach, and otherwise one's own. */
export interface Participation {
  sessions: { id: string; title: string; number: number; startsAt: number }[];
  rows: { member: string; name: string; group: string | null; cells: (TakenPart | null)[] }[];
  rules: AfterRules;
}

/** What the class thought, over the term; for those who teach. */
export interface TermThoughts {
  sessions: { id: string; title: string; number: number; startsAt: number; thoughts: Thoughts }[];
  asked: boolean;
}

/** Whether somebody is asked what they thought of a session. */
export interface ThoughtAsked {
  asked: boolean;
  given: boolean;
}

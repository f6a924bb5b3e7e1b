import { z } from 'zod';
import { tidyProse } from '../text';
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

/** A word to some of the class, by letter; about a recording, where one is given. */
export const WordInput = z.object({
  members: z.array(z.string().max(20)).min(1, 'Say to whom.').max(400, 'At most 400 at once.'),
  text: z
    .string()
    .transform(tidyProse)
    .pipe(z.string().trim().min(1, 'Write something.').max(2000, 'At most 2000 characters.')),
  recording: z.string().max(20).nullable().default(null),
});
export type WordInput = z.infer<typeof WordInput>;

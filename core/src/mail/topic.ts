import { z } from 'zod';

/** What a letter is about. */
export type LetterTopic =
  | 'invitation'
  | 'update'
  | 'goodbye'
  | 'link'
  | 'reminder'
  | 'nudge'
  | 'missing'
  | 'notice'
  | 'recording'
  | 'question'
  | 'word'
  | 'leaving'
  | 'space';

/** The kinds of letters that a reader may do without: the others keep calendars right, or are about this moment. */
export const Unwanted = z.enum(['reminder', 'notice', 'recording']);
export type Unwanted = z.infer<typeof Unwanted>;

/** Where a letter is on its way. `void`: there was nothing left to say when its time came. */
export type LetterState = 'queued' | 'sent' | 'failed' | 'bounced' | 'void';

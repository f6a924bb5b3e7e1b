/** What a letter is about. */
export type LetterTopic =
  'invitation' | 'update' | 'goodbye' | 'link' | 'reminder' | 'nudge' | 'notice' | 'recording';

/** Where a letter is on its way. `void`: there was nothing left to say when its time came. */
export type LetterState = 'queued' | 'sent' | 'failed' | 'bounced' | 'void';

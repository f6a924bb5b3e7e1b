/** What somebody does by which one sees that they are with us. */
export type Deed = 'answered' | 'wrote' | 'drew' | 'spoke' | 'hand' | 'sign';

export interface TakesPart {
  /** Since when they are here, an instant. */
  came: number;
  last: { what: Deed; at: number } | null;
}

/** Each student, by what they did last. For those who teach. */
export type WithUsState = Readonly<Record<string, TakesPart>>;

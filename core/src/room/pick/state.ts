export interface Picked {
  member: string;
  /** Which teacher asked. */
  by: string;
  at: number;
  /** The names pass before it is said who it is. */
  slowly: boolean;
  /** Who passed it on before. */
  passed: readonly string[];
}

export interface PickState {
  /** Who is asked now. */
  now: Picked | null;
  /** How often each was asked: in the classes before, and in this one. */
  asked: Readonly<Record<string, number>>;
}

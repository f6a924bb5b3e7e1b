export interface RecordingState {
  state: 'off' | 'on' | 'paused';
  /** Whether ring-in starts it. */
  automatic: boolean;
  /** Who said whether they are to be in it. Known to each of themselves, and to those who teach. */
  answers: Readonly<Record<string, 'agreed' | 'withheld'>>;
}

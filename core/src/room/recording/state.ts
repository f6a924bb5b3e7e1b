export interface RecordingState {
  state: 'off' | 'on' | 'paused';
  /** Whether ring-in starts it. */
  automatic: boolean;
}

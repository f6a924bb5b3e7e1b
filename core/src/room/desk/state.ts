/** People's own switches, by member. Whether they take effect, the limits decide. */
export interface DeskState {
  microphone: Readonly<Record<string, true>>;
  camera: Readonly<Record<string, true>>;
}

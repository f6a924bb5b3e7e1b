/** People's own switches, by member. Whether they take effect, the limits decide. */
export interface DeskState {
  microphone: Readonly<Record<string, true>>;
  camera: Readonly<Record<string, true>>;
  /** Who only listens: they have no microphone, or may not be heard where they are. */
  listens: Readonly<Record<string, true>>;
  /** Who was asked to switch their microphone on, and by whom. */
  asked: Readonly<Record<string, string>>;
}

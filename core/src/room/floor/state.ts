export interface FloorState {
  /** Who has the right to speak now, by a teacher's word. */
  holder: string | null;
  /** In the order of raising. */
  hands: readonly { member: string; at: number }[];
}

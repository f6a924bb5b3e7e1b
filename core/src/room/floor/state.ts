export interface FloorState {
  /** Who has the right to speak now, by a teacher's word. */
  holder: string | null;
  /** When it ends by itself, an instant; null where a teacher ends it. */
  until: number | null;
  /** In the order of raising. */
  hands: readonly { member: string; at: number }[];
}

/** So long is a piece, ms. */
export const PIECE_MS = 60_000;
/** So long after its end everything of a piece has come, and is in the relay's files. */
export const LATE_MS = 5000;

/** When a part's piece can be made. */
export const pieceDue = (from: number, number: number): number => from + (number + 1) * PIECE_MS + LATE_MS;

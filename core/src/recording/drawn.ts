/** What is drawn on a board, moved about on it and wiped off. */
export const MARKED = [
  ...(['drawn', 'textPut', 'shapePut', 'picturePut', 'takenOff', 'broughtBack', 'shifted'] as const),
  ...(['boardCleared', 'clearingUndone', 'boardTurned', 'groundLaid'] as const),
] as const;

/** What was made elsewhere, before the class. */
export const WORK_SHOWN = ['workShown', 'workPutBack'] as const;

/** Pages that were shown, and what was drawn on them. */
export const PAGES_SHOWN = [
  ...(['slidesShown', 'slideTurned', 'slideFramed', 'slidesPutAway'] as const),
  ...(['slideMarked', 'marksCleared'] as const),
] as const;

import type { BoardState } from '@nimble-bell/core/room';

type Place = BoardState['strokes'][number]['place'];

/** What of the board is one place's. Each list stays the same one where all of it is. */
export function inPlace({ strokes, texts }: BoardState, place: Place): BoardState {
  const there = <T extends { place: Place }>(all: readonly T[]) =>
    all.every((one) => one.place === place) ? all : all.filter((one) => one.place === place);
  return { strokes: there(strokes), texts: there(texts) };
}

import type { OnBoard, Place } from '@nimble-bell/core/room';

/** What of the board is one place's. Each list stays the same one where all of it is. */
export function inPlace({ strokes, texts }: OnBoard, place: Place): OnBoard {
  const there = <T extends { place: Place }>(all: readonly T[]) =>
    all.every((one) => one.place === place) ? all : all.filter((one) => one.place === place);
  return { strokes: there(strokes), texts: there(texts) };
}

import type { ComponentType } from 'react';
import type { ReplayProps } from './replay';
import { HeldReplay } from './HeldReplay';
import { BoardReplay } from './board/Replay';
import { FilmReplay } from './film/FilmReplay';
import { SlidesReplay } from './slides/SlidesReplay';
import { TalkReplay } from './talk/Replay';

/** What a recording replays beside its picture: under it, or in the column at its side. */
export const REPLAYS: readonly {
  id: string;
  where: 'under' | 'beside';
  Replay: ComponentType<ReplayProps>;
}[] = [
  { id: 'held', where: 'under', Replay: HeldReplay },
  { id: 'film', where: 'under', Replay: FilmReplay },
  { id: 'slides', where: 'under', Replay: SlidesReplay },
  { id: 'board', where: 'under', Replay: BoardReplay },
  { id: 'talk', where: 'beside', Replay: TalkReplay },
];

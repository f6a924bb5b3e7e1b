import type { ComponentType } from 'react';
import type { Front } from '@nimble-bell/core/room';
import { Board } from './board/Board';
import { Faces } from './picture/Faces';
import { MainPicture } from './picture/MainPicture';
import { Notes } from './notes/Notes';
import { NoStage } from './picture/NoStage';
import { Slides } from './slides/Slides';
import { Film } from './film/Film';
import { TalkPanel } from './talk/TalkPanel';
import { Tables } from './tables/Tables';

/** What can be put on the stage, each chosen by its word. */
export const STAGE_TOOLS: readonly { id: Front; word: string; Stage: ComponentType }[] = [
  { id: 'picture', word: 'Picture', Stage: MainPicture },
  { id: 'faces', word: 'Faces', Stage: Faces },
  { id: 'seats', word: 'Seats', Stage: NoStage },
  { id: 'slides', word: 'Slides', Stage: Slides },
  { id: 'board', word: 'Board', Stage: Board },
  { id: 'notes', word: 'Notes', Stage: Notes },
  { id: 'film', word: 'Film', Stage: Film },
  { id: 'tables', word: 'Tables', Stage: Tables },
];

/** What stands in the right column. */
export const PANELS: readonly { id: string; Panel: ComponentType }[] = [{ id: 'talk', Panel: TalkPanel }];

import { Paper } from '@mantine/core';
import { CLASS } from '@nimble-bell/core/room';
import type { ReplayProps } from '../replay';
import { inPlace } from './inPlace';
import { Surface } from './Surface';
import classes from './board.module.css';

/** The class's board as it was, or what a table had made while that was shown; nothing where nothing had been drawn. */
export function BoardReplay({ room, nameOf }: ReplayProps) {
  const { shown } = room.board;
  const on = shown ?? inPlace(room.board, CLASS);
  if (on.strokes.length + on.texts.length === 0) return null;
  return (
    <Paper
      withBorder
      mt="sm"
      className={classes.replay}
      aria-label={shown ? `What ${shown.title} made` : undefined}
    >
      <Surface on={on} nameOf={nameOf} draw={null} colour="ink" />
    </Paper>
  );
}

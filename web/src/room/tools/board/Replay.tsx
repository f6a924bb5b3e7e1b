import { Paper } from '@mantine/core';
import { CLASS, onBoard } from '@nimble-bell/core/room';
import type { ReplayProps } from '../replay';
import { Surface } from './Surface';
import classes from './board.module.css';

/** The class's board as it was, or one that was shown to it; nothing where nothing had been drawn. */
export function BoardReplay({ room, nameOf }: ReplayProps) {
  const { shown } = room.board;
  const on = shown ?? onBoard(room.board, CLASS);
  if (on.marks.length === 0) return null;
  return (
    <Paper
      withBorder
      mt="sm"
      className={classes.replay}
      aria-label={shown ? `What ${shown.title} made` : undefined}
    >
      <Surface on={on} nameOf={nameOf} />
    </Paper>
  );
}

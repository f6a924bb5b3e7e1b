import { Paper } from '@mantine/core';
import { CLASS } from '@nimble-bell/core/room';
import type { ReplayProps } from '../replay';
import { Surface } from './Surface';
import classes from './board.module.css';

/** The class's board as it was; nothing where nothing had been drawn. */
export function BoardReplay({ room }: ReplayProps) {
  const strokes = room.board.strokes.filter((s) => s.place === CLASS);
  if (strokes.length === 0) return null;
  return (
    <Paper withBorder mt="sm" className={classes.replay}>
      <Surface strokes={strokes} draw={null} colour="ink" />
    </Paper>
  );
}

import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';

const Coordinate = z.number().min(0).max(1);

/** A pen stroke; points are fractions of the board's width and height, x and y in turn. */
export const Stroke = z.object({
  points: z.array(Coordinate).min(2).max(4000),
  colour: z.enum(['ink', 'pine', 'brass', 'clay', 'tide']),
});
export type Stroke = z.infer<typeof Stroke>;

export const boardCommands = {
  draw: message('draw', { stroke: Stroke }),
  clearBoard: message('clearBoard', {}),
};

export const boardEvents = {
  drawn: message('drawn', { by: MemberId, stroke: Stroke, place: Place }),
  boardCleared: message('boardCleared', { by: MemberId, place: Place }),
};

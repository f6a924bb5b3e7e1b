import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';

const Coordinate = z.number().min(0).max(1);

/** A pen stroke; points are fractions of the board's width and height, x and y in turn. */
export const Stroke = z.object({
  points: z.array(Coordinate).min(2).max(4000),
  colour: z.enum(['ink', 'pine', 'brass', 'clay', 'tide']),
});
export type Stroke = z.infer<typeof Stroke>;

/** Words on the board: where their first letter stands, as fractions of its width and height. */
export const BoardText = z.object({
  text: z.string().trim().min(1, 'Write something first.').max(200, 'At most 200 characters.'),
  at: z.tuple([Coordinate, Coordinate]),
  colour: Stroke.shape.colour,
});
export type BoardText = z.infer<typeof BoardText>;

/** Which of a board's it is, by the number of its event, and whose. */
const Drawn = { seq: z.int(), by: MemberId };

export const boardCommands = {
  putText: message('putText', { text: BoardText }),
  draw: message('draw', { stroke: Stroke }),
  clearBoard: message('clearBoard', {}),
  /** Shows the class what was made at a table: its board as it is, and its notes. */
  showWork: message('showWork', { place: Place }),
  putWorkBack: message('putWorkBack', {}),
};

export const boardEvents = {
  drawn: message('drawn', { by: MemberId, stroke: Stroke, place: Place }),
  textPut: message('textPut', { by: MemberId, text: BoardText, place: Place }),
  /** What stood on a table's board then: whoever sat elsewhere has nothing of it from before. */
  workShown: message('workShown', {
    by: MemberId,
    from: Place,
    title: z.string(),
    strokes: z.array(Stroke.extend(Drawn)),
    texts: z.array(BoardText.extend(Drawn)),
  }),
  workPutBack: message('workPutBack', { by: MemberId }),
  boardCleared: message('boardCleared', { by: MemberId, place: Place }),
};

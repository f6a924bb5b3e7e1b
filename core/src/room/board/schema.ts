import { z } from 'zod';
import { line } from '../../text/index';
import { MemberId, message, Place } from '../kernel/schema';
import { isPicture, MOST_LETTERS } from './jpeg';
import { GROUNDS, MOST_AT_ONCE, MOST_SIDES, SHAPES } from './state';

const Coordinate = z.number().min(0).max(1);
const Point = z.tuple([Coordinate, Coordinate]);

/** A pen stroke; points are fractions of the board's width and height, x and y in turn. */
export const Stroke = z.object({
  points: z.array(Coordinate).min(2).max(4000),
  colour: z.enum(['ink', 'pine', 'brass', 'clay', 'tide']),
  /** How hard a pen was pressed at each point (W3C Pointer Events); without, as the hand's speed has it. */
  pressure: z.array(Coordinate).max(2000).optional(),
  broad: z.boolean().optional(),
});
export type Stroke = z.infer<typeof Stroke>;

/** Words on the board: where their first letter stands, as fractions of its width and height. */
export const BoardText = z.object({
  text: z.string().trim().min(1, 'Write something first.').max(200, 'At most 200 characters.'),
  at: Point,
  colour: Stroke.shape.colour,
  /** On a slip of paper that is stuck to the board. */
  slip: z.boolean().optional(),
});
export type BoardText = z.infer<typeof BoardText>;

/** What is drawn between two points. */
export const Shape = z.object({
  shape: z.enum(SHAPES),
  from: Point,
  to: Point,
  colour: Stroke.shape.colour,
});
export type Shape = z.infer<typeof Shape>;

const PictureParts = z.object({
  /** A JPEG, base64. */
  jpeg: z
    .string()
    .max(MOST_LETTERS, 'The picture is too large.')
    .refine(isPicture, 'This is not a picture that the board takes.'),
  /** What is to be seen on it. */
  words: line('Say what is to be seen on it.', 120),
  from: Point,
  to: Point,
});
/** A picture on the board, between its upper left corner and the other. It is part of its event: whoever has the board has it. */
export const Picture = PictureParts.refine(
  ({ from, to }) => from[0] < to[0] && from[1] < to[1],
  'A picture is as wide and as high as can be seen.',
);
export type Picture = z.infer<typeof Picture>;

const Side = z.int().min(1).max(MOST_SIDES);
/** Marks, by the numbers of their events. */
const Marks = z.array(z.int().min(1)).min(1).max(MOST_AT_ONCE);
/** How far something is moved, in fractions of the board. */
const Shift = z.number().min(-1).max(1);
/** A board of somebody's own; without, the board of the place where one is. */
const At = { at: Place.optional() };

/** A mark on a board: which it is, whose, and where. */
const Drawn = { seq: z.int(), by: MemberId };
const Mark = z.discriminatedUnion('kind', [
  Stroke.extend({ kind: z.literal('stroke'), ...Drawn }),
  BoardText.extend({ kind: z.literal('text'), ...Drawn }),
  Shape.extend({ kind: z.literal('shape'), ...Drawn }),
  PictureParts.extend({ kind: z.literal('picture'), ...Drawn }),
]);

export const boardCommands = {
  putText: message('putText', { text: BoardText, ...At }),
  draw: message('draw', { stroke: Stroke, ...At }),
  putShape: message('putShape', { shape: Shape, ...At }),
  putPicture: message('putPicture', { picture: Picture, ...At }),
  /** Takes marks off the board: one's own; those who teach, anybody's. */
  takeOff: message('takeOff', { marks: Marks, ...At }),
  /** Puts back what was taken off, where and as it was. */
  putBack: message('putBack', { marks: Marks, ...At }),
  shift: message('shift', { marks: Marks, x: Shift, y: Shift, ...At }),
  clearBoard: message('clearBoard', At),
  /** Puts back what was cleared last. */
  undoClearing: message('undoClearing', At),
  turnBoard: message('turnBoard', { side: Side, ...At }),
  layGround: message('layGround', { ground: z.enum(GROUNDS), ...At }),
  /** Gives everybody a board of their own, or takes them away. */
  giveBoards: message('giveBoards', { given: z.boolean() }),
  /** Shows the class a board as it is: a table's, with its notes, or somebody's own, with their name or without. */
  showWork: message('showWork', { place: Place, named: z.boolean().optional() }),
  putWorkBack: message('putWorkBack', {}),
};

const On = { place: Place, side: Side };

export const boardEvents = {
  drawn: message('drawn', { by: MemberId, stroke: Stroke, ...On }),
  textPut: message('textPut', { by: MemberId, text: BoardText, ...On }),
  shapePut: message('shapePut', { by: MemberId, shape: Shape, ...On }),
  picturePut: message('picturePut', { by: MemberId, picture: Picture, ...On }),
  takenOff: message('takenOff', { by: MemberId, marks: Marks, place: Place }),
  broughtBack: message('broughtBack', { by: MemberId, marks: Marks, place: Place }),
  shifted: message('shifted', { by: MemberId, marks: Marks, x: Shift, y: Shift, place: Place }),
  boardCleared: message('boardCleared', { by: MemberId, ...On }),
  clearingUndone: message('clearingUndone', { by: MemberId, place: Place }),
  boardTurned: message('boardTurned', { by: MemberId, ...On }),
  groundLaid: message('groundLaid', { by: MemberId, ground: z.enum(GROUNDS), ...On }),
  boardsGiven: message('boardsGiven', { by: MemberId, given: z.boolean() }),
  /** What stood on a board then: whoever was elsewhere has nothing of it from before. */
  workShown: message('workShown', {
    by: MemberId,
    /** The board's place; empty to those who are not told whose it is. */
    from: z.string().max(40),
    title: z.string(),
    ground: z.enum(GROUNDS),
    marks: z.array(Mark),
    /** Only those who teach are told whose it is. */
    unnamed: z.boolean(),
  }),
  workPutBack: message('workPutBack', { by: MemberId }),
};

import { z } from 'zod';
import { tidyLine } from '../../text/index';
import { MemberId, message, Place } from '../kernel/schema';
import { LONGEST_LINE } from './state';

/** A line of captions; where it mends an earlier one, nothing at all takes that away. */
const Text = z.string().transform(tidyLine).pipe(z.string().max(LONGEST_LINE));

export const captionsCommands = {
  /** A program listens to the class and writes down what it hears, or no more. */
  letListen: message('letListen', { on: z.boolean() }),
  /** Who writes down what is said: oneself, another who teaches, a student, somebody who came to do it. */
  setCaptioner: message('setCaptioner', { member: MemberId, on: z.boolean() }),
  /** A line; `instead`: of the one with this number. */
  caption: message('caption', { text: Text, instead: z.int().min(1).optional() }),
};

export const captionsEvents = {
  captionerSet: message('captionerSet', { by: MemberId, member: MemberId, on: z.boolean() }),
  listening: message('listening', { by: MemberId, on: z.boolean() }),
  /** By whom it was written; where a program heard it (`heard`), by whom it was said. */
  captioned: message('captioned', {
    place: Place,
    by: MemberId,
    text: z.string(),
    instead: z.number().optional(),
    heard: z.literal(true).optional(),
  }),
};

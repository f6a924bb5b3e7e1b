import { z } from 'zod';
import { CameSchema, WaySchema } from '../../door/schema';
import { Role } from '../../roster/schema';
import { MemberId, message } from '../kernel/schema';

/** How somebody who was put out comes in again: as before, by knocking, or not in this session. */
export const Back = z.enum(['may', 'knocks', 'not']);
export type Back = z.infer<typeof Back>;

const Members = z.array(MemberId).min(1).max(1000);
const Word = z.string().trim().min(1, 'Write something first.').max(200, 'At most 200 characters.');
const Reason = z.string().trim().max(200, 'At most 200 characters.');

export const doorCommands = {
  lock: message('lock', {}),
  unlock: message('unlock', {}),
  /** `always`: from now on they walk straight into every session of the course. */
  letIn: message('letIn', { members: Members, always: z.boolean().optional() }),
  turnAway: message('turnAway', { members: Members, word: Reason.default('') }),
  /** A word to all who wait at the door. */
  porchWord: message('porchWord', { text: Word }),
  putOut: message('putOut', { member: MemberId, back: Back, reason: Reason.default('') }),
  letBack: message('letBack', { member: MemberId }),
};

export const doorEvents = {
  locked: message('locked', { by: MemberId }),
  unlocked: message('unlocked', { by: MemberId }),
  knocked: message('knocked', {
    member: MemberId,
    name: z.string(),
    role: Role,
    came: CameSchema.optional(),
    way: WaySchema.optional(),
  }),
  /** They went away from the door. */
  knockEnded: message('knockEnded', { member: MemberId }),
  admitted: message('admitted', { by: MemberId, members: Members, always: z.literal(true).optional() }),
  turnedAway: message('turnedAway', { by: MemberId, members: Members, word: z.string() }),
  porchTold: message('porchTold', { by: MemberId, text: z.string() }),
  sentOut: message('sentOut', { by: MemberId, member: MemberId, back: Back, reason: z.string() }),
  takenBack: message('takenBack', { by: MemberId, member: MemberId }),
};

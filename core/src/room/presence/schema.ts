import { z } from 'zod';
import { Capability } from '../../limits/schema';
import { CameSchema } from '../../door/schema';
import { PersonName } from '../../roster/names';
import { Role } from '../../roster/schema';
import { MemberId, message, Place } from '../kernel/schema';

export const presenceCommands = {
  /** What somebody is called in this course: a teacher corrects it, or they themselves where they may. */
  rename: message('rename', { member: MemberId, name: PersonName }),
};

export const presenceEvents = {
  entered: message('entered', {
    member: MemberId,
    name: z.string(),
    role: Role,
    place: Place,
    /** What a guest may do whatever the limits say, chosen when they were asked in. */
    grants: z.array(Capability).optional(),
    /** They came by the class link. */
    came: CameSchema.optional(),
    pronouns: z.string().optional(),
  }),
  /** These are in another place of the room now; by nobody where its time was over. */
  wentTo: message('wentTo', {
    by: MemberId.nullable(),
    moves: z.array(z.object({ member: MemberId, to: Place })).min(1),
  }),
  left: message('left', { member: MemberId }),
  /** Somebody in the room is called otherwise now, or is something else in the course. */
  known: message('known', {
    member: MemberId,
    name: z.string(),
    role: Role,
    grants: z.array(Capability).optional(),
    pronouns: z.string().optional(),
  }),
  renamed: message('renamed', { by: MemberId, member: MemberId, name: z.string() }),
  /** Somebody in the room has so many pages open on it now. */
  pagesChanged: message('pagesChanged', { member: MemberId, pages: z.int().min(0) }),
  /** Somebody in the room is here by telephone as well, or no more. */
  calledIn: message('calledIn', { member: MemberId }),
  hungUp: message('hungUp', { member: MemberId }),
};

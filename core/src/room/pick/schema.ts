import { z } from 'zod';
import { MemberId, message } from '../kernel/schema';

export const pickCommands = {
  /** Somebody who was asked least, by lot. */
  pick: message('pick', { slowly: z.boolean().optional() }),
  /** By who is asked, or by a teacher: somebody else in their place, and it does not count as asked. */
  passOn: message('passOn', {}),
  endPick: message('endPick', {}),
};

export const pickEvents = {
  picked: message('picked', {
    by: MemberId,
    member: MemberId,
    slowly: z.boolean(),
    /** In whose place. */
    insteadOf: MemberId.nullable(),
  }),
  pickEnded: message('pickEnded', { by: MemberId }),
};

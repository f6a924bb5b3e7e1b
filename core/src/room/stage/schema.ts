import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';

export const stageCommands = { present: message('present', { on: z.boolean() }) };

export const stageEvents = {
  presenting: message('presenting', { member: MemberId, on: z.boolean(), place: Place }),
};

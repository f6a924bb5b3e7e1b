import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';
import { FRONTS } from './state';

export const stageCommands = {
  present: message('present', { on: z.boolean() }),
  /** What everybody looks at. */
  setFront: message('setFront', { tool: z.enum(FRONTS) }),
};

export const stageEvents = {
  frontSet: message('frontSet', { by: MemberId, tool: z.enum(FRONTS), place: Place }),
  presenting: message('presenting', { member: MemberId, on: z.boolean(), place: Place }),
};

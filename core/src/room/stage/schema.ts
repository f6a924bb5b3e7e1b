import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';
import { FRONTS } from './state';

export const stageCommands = {
  present: message('present', { on: z.boolean() }),
  /** Whether two may present side by side where one is. */
  letTwoPresent: message('letTwoPresent', { on: z.boolean() }),
  /** Somebody who may present is asked to; nobody else can begin it. */
  askToPresent: message('askToPresent', { member: MemberId }),
  /** Somebody's picture is large for all, or nobody's by word of a teacher. */
  feature: message('feature', { member: MemberId.nullable() }),
  /** What everybody looks at. */
  setFront: message('setFront', { tool: z.enum(FRONTS) }),
};

export const stageEvents = {
  frontSet: message('frontSet', { by: MemberId, tool: z.enum(FRONTS), place: Place }),
  featured: message('featured', { by: MemberId, member: MemberId.nullable(), place: Place }),
  twoLetPresent: message('twoLetPresent', { by: MemberId, on: z.boolean(), place: Place }),
  presentAsked: message('presentAsked', { by: MemberId, member: MemberId }),
  presenting: message('presenting', { member: MemberId, on: z.boolean(), place: Place }),
};

import { z } from 'zod';
import { MemberId, message } from '../kernel/schema';
import { SIGNS } from './signs';

export const Sign = z.enum(SIGNS);
export type Sign = z.infer<typeof Sign>;

export const signsCommands = {
  /** Null takes it back. */
  giveSign: message('giveSign', { sign: Sign.nullable() }),
};

export const signsEvents = {
  signGiven: message('signGiven', { member: MemberId, sign: Sign.nullable() }),
};

import { z } from 'zod';
import { MemberId, message } from '../kernel/schema';

/** What somebody says without a word. */
export const SIGNS = ['withYou', 'lost', 'slower', 'faster', 'break', 'agree', 'away'] as const;
export const Sign = z.enum(SIGNS);
export type Sign = z.infer<typeof Sign>;

export const signsCommands = {
  /** Null takes it back. */
  giveSign: message('giveSign', { sign: Sign.nullable() }),
};

export const signsEvents = {
  signGiven: message('signGiven', { member: MemberId, sign: Sign.nullable() }),
};

import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';

export const Addressee = z.discriminatedUnion('to', [
  z.object({ to: z.literal('class') }),
  z.object({ to: z.literal('teachers') }),
  z.object({ to: z.literal('member'), member: MemberId }),
]);
export type Addressee = z.infer<typeof Addressee>;

const Text = z.string().trim().min(1, 'Write something first.').max(4000, 'At most 4,000 characters.');

export const talkCommands = { say: message('say', { addressee: Addressee, text: Text }) };

export const talkEvents = {
  said: message('said', { from: MemberId, addressee: Addressee, text: z.string(), place: Place }),
};

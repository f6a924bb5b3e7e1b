import { z } from 'zod';
import { MemberId, message, Place } from '../kernel/schema';

export const Addressee = z.discriminatedUnion('to', [
  z.object({ to: z.literal('class') }),
  z.object({ to: z.literal('teachers') }),
  z.object({ to: z.literal('member'), member: MemberId }),
]);
export type Addressee = z.infer<typeof Addressee>;

const Text = z.string().trim().min(1, 'Write something first.').max(4000, 'At most 4,000 characters.');

/** A file that goes with a message: what it is called and how large it is, the server knows. */
const FileId = z.string().regex(/^[a-z0-9]{12}$/, 'There is no such file.');

export const talkCommands = {
  /** `file`: one that whoever says it has sent up before. */
  say: message('say', { addressee: Addressee, text: Text, file: FileId.optional() }),
};

export const talkEvents = {
  said: message('said', {
    from: MemberId,
    addressee: Addressee,
    text: z.string(),
    place: Place,
    file: FileId.optional(),
  }),
};

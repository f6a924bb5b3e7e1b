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

/** A message is known by the number of the event that said it. */
const Seq = z.int().min(1);
const KeptAs = z.enum(['later', 'answered', 'none']);
export type KeptAs = z.infer<typeof KeptAs>;

export const talkCommands = {
  /**
   * `file`: one that whoever says it has sent up before. `reply`: the number of the message that it answers. `call`: it is
   * put over the stage for all, which those who teach may.
   */
  say: message('say', {
    addressee: Addressee,
    text: Text,
    file: FileId.optional(),
    reply: Seq.optional(),
    call: z.literal(true).optional(),
  }),
  /** Takes a message back: its place stays, its words go. */
  unsay: message('unsay', { message: Seq }),
  /** Keeps a message as a question: for later, answered, or no question after all. */
  keepQuestion: message('keepQuestion', { message: Seq, as: KeptAs }),
};

export const talkEvents = {
  said: message('said', {
    from: MemberId,
    addressee: Addressee,
    text: z.string(),
    place: Place,
    file: FileId.optional(),
    reply: Seq.optional(),
    call: z.literal(true).optional(),
  }),
  unsaid: message('unsaid', { by: MemberId, message: Seq }),
  questionKept: message('questionKept', { by: MemberId, message: Seq, as: KeptAs }),
};

import { z } from 'zod';
import { MOST_ROWS } from '../roster/classList';
import type { LetterTopic } from '../mail/topic';
import { ListRowInput, MemberFields, NewMember } from '../roster/member';

const Id = z.string().min(1).max(20);

/** Everything that can be done to a class list. Each is previewed, saved, kept in its history and undone alike. */
export const ListEdit = z.discriminatedUnion('edit', [
  z.object({
    edit: z.literal('import'),
    rows: z.array(ListRowInput).max(MOST_ROWS),
    /** Rows like somebody on the list or like another row, settled: the same person with a new address, another one, or one who stands there twice. */
    settled: z
      .array(z.object({ line: z.int(), as: z.enum(['same', 'other', 'twice']) }))
      .max(MOST_ROWS)
      .default([]),
    /** Members who are not in the file and are to go. */
    drop: z.array(Id).max(MOST_ROWS).default([]),
    invite: z.boolean().default(false),
  }),
  z.object({ edit: z.literal('add'), person: NewMember, invite: z.boolean().default(true) }),
  z.object({ edit: z.literal('change'), members: z.array(Id).min(1).max(2000), fields: MemberFields }),
  z.object({ edit: z.literal('drop'), members: z.array(Id).min(1).max(2000) }),
  z.object({ edit: z.literal('replace-links'), members: z.array(Id).min(1).max(2000) }),
]);
export type ListEdit = z.infer<typeof ListEdit>;
export type ListEditDraft = z.input<typeof ListEdit>;

/** What an edit of the class list does, or did. */
export interface ListOutcome {
  /** The history's entry; null in a preview. */
  changeId: string | null;
  /** The latest entry of the history that it was worked out on: sent with the save, as `If-Match`. */
  on: string;
  words: string;
  people: { member: string; name: string; words: string }[];
  /** Who is written to, and about what. */
  mail: { topic: LetterTopic; count: number; names: string[] }[];
}

export interface ListChangeInfo {
  id: string;
  at: number;
  by: string;
  words: string;
  people: number;
  undoneAt: number | null;
  undoable: boolean;
  /** Nothing is left of it to take back. */
  spent: boolean;
}

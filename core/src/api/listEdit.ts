import { z } from 'zod';
import { MOST_ROWS } from '../roster/classList';
import { Capability } from '../limits/capabilities';
import { PersonName } from '../roster/names';
import { Role } from '../roster/role';

const Id = z.string().min(1).max(20);
const Name = PersonName;
const Email = z.string().trim().toLowerCase().min(1, 'Give an e-mail address.').max(254);
const GroupName = z.string().trim().min(1).max(40);

/** What of a course somebody is here for: these series and sessions. The whole course where there is none. */
export const MemberScope = z.object({
  series: z.array(Id).max(60),
  sessions: z.array(Id).max(200),
});
export type MemberScope = z.infer<typeof MemberScope>;

/** A row of a class list as it was read; what it does not say is null. Checked again by the roster's own rules. */
export const ListRowInput = z.object({
  line: z.int().min(0),
  name: z.string().max(200),
  email: z.string().max(300),
  zone: z.string().max(64).nullable(),
  group: z.string().max(200).nullable(),
  extra: z.record(z.string().max(60), z.string().max(200)),
});

export const NewMember = z.object({
  name: Name,
  email: Email,
  zone: z.string().max(64).nullable().default(null),
  group: GroupName.nullable().default(null),
  role: Role.default('student'),
  scope: MemberScope.nullable().default(null),
  /** Their link opens nothing from this instant on. */
  until: z.number().int().positive().nullable().default(null),
  /** What a guest may do whatever the limits say. */
  capabilities: z.array(Capability).max(7).default([]),
});
export type NewMember = z.infer<typeof NewMember>;

export const MemberFields = z.object({
  name: Name.optional(),
  email: Email.optional(),
  zone: z.string().max(64).optional(),
  group: GroupName.nullable().optional(),
  role: Role.optional(),
  scope: MemberScope.nullable().optional(),
});
export type MemberFields = z.infer<typeof MemberFields>;

/** Everything that can be done to a class list. Each is previewed, saved, kept in its history and undone alike. */
export const ListEdit = z.discriminatedUnion('edit', [
  z.object({
    edit: z.literal('import'),
    rows: z.array(ListRowInput).max(MOST_ROWS),
    /** Rows like somebody on the list, settled: the same person with a new address, or another one. */
    settled: z
      .array(z.object({ line: z.int(), as: z.enum(['same', 'other']) }))
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

/** What a letter is about. */
export type LetterTopic =
  'invitation' | 'update' | 'goodbye' | 'link' | 'reminder' | 'nudge' | 'notice' | 'recording';

/** What an edit of the class list does, or did. */
export interface ListOutcome {
  /** The history's entry; null in a preview. */
  changeId: string | null;
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
}

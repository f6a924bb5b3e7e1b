import { z } from 'zod';
import type { Capability } from '../limits/capabilities';
import { PersonName } from '../roster/names';
import type { Role } from '../roster/role';
import type { LetterTopic, MemberScope } from './listEdit';
import { Zone } from '../calendar/plan';

const Id = z.string().min(1).max(20);

/** Where a letter is on its way. `void`: there was nothing left to say when its time came. */
export type LetterState = 'queued' | 'sent' | 'failed' | 'bounced' | 'void';

/** `PARTSTAT` of RFC 5545 §3.2.12, as far as a person can answer. */
export const Answer = z.enum(['accepted', 'tentative', 'declined']);
export type Answer = z.infer<typeof Answer>;

/** An answer to a series, or to the session of one original date of it. */
export interface Reply {
  seriesId: string;
  date: string | null;
  answer: Answer;
  at: number;
}

export const ReplyInput = z.object({
  seriesId: Id,
  date: z.string().max(10).nullable().default(null),
  answer: Answer,
});

export interface MemberInfo {
  id: string;
  name: string;
  preferredName: string | null;
  email: string;
  zone: string;
  /** They said themselves where they are. */
  zoneOwn: boolean;
  role: Role;
  group: string | null;
  /** The school's own columns, by heading. */
  extra: Record<string, string>;
  scope: MemberScope | null;
  capabilities: Capability[];
  /** Their PIN on the course's telephone line, where it has one. */
  pin: string | null;
  /** Path of the personal link; null where it is not this reader's to have. From when it is, and until when. */
  link: string | null;
  linkAt: number | null;
  linkUntil: number | null;
  lastSeen: number | null;
  invitation: 'none' | LetterState;
  replies: Reply[];
}

export const InvitationTemplate = z.object({
  subject: z.string().trim().min(1, 'Give a subject.').max(200, 'At most 200 characters.'),
  text: z.string().trim().min(1, 'Write what they are to read.').max(8000, 'At most 8,000 characters.'),
});
export type InvitationTemplate = z.infer<typeof InvitationTemplate>;

export const InvitationInput = z.object({
  /** Those chosen; everyone who has no invitation yet where there is no list. */
  members: z.array(Id).max(5000).nullable().default(null),
  groups: z.array(z.string().max(40)).max(200).nullable().default(null),
  /** The instant at which they leave; now where there is none. */
  at: z.number().int().positive().nullable().default(null),
  copyToMe: z.boolean().default(false),
});

/** A time before each session at which those whom it is for are invited to it: everybody, or some of them. */
export const InviteBefore = z.object({
  minutes: z
    .int('Give whole minutes.')
    .min(1)
    .max(14 * 24 * 60),
  members: z.array(Id).min(1).max(5000).nullable().default(null),
  groups: z.array(z.string().max(40)).min(1).max(200).nullable().default(null),
});
export type InviteBefore = z.infer<typeof InviteBefore>;

export const TelephoneInput = z.object({
  /** The number of the line as it is dialled; null where the course has none. */
  number: z
    .string()
    .trim()
    .regex(/^\+?[0-9][0-9 ()./-]{4,29}$/, 'Give the number as it is dialled, such as +1 902 555 0140.')
    .nullable(),
});

export interface InvitationPreview {
  member: string;
  name: string;
  subject: string;
  text: string;
  html: string;
  /** The calendar entries inside, in words. */
  entries: string[];
}

/** A letter that leaves once a change is saved, and all who get the same: theirs differ by name and link alone. */
export interface LetterAhead {
  topic: LetterTopic;
  subject: string;
  /** As the first of them gets it. */
  text: string;
  html: string;
  entries: string[];
  /** From when it may leave. */
  dueAt: number;
  names: string[];
  /** The zone in which its times are. */
  zone: string;
}

/** A letter's way through the outbox. */
export interface Delivery {
  id: number;
  member: string;
  name: string;
  email: string;
  topic: LetterTopic;
  subject: string;
  state: LetterState;
  at: number;
  fault: string | null;
  /** What its reader answered since. */
  answer: Answer | null;
}

/** Minutes before each session at which those whom it is for are reminded. */
export const Reminders = z.object({
  minutes: z
    .array(
      z
        .int('Give whole minutes.')
        .min(1)
        .max(14 * 24 * 60),
    )
    .max(5, 'At most five reminders a session.')
    .refine((m) => new Set(m).size === m.length, 'Each reminder once.'),
});

export const MeInput = z.object({
  zone: Zone.optional(),
  /** Empty or null: the class list's name. */
  preferredName: z.literal('').or(PersonName).nullable().optional(),
});

const Mark = z.object({
  type: z.enum(['bold', 'italic', 'underline', 'strike', 'link']),
  attrs: z
    .object({ href: z.string().max(1000) })
    .partial()
    .optional(),
});
export interface NoticeNode {
  type: string;
  text?: string | undefined;
  marks?: z.infer<typeof Mark>[] | undefined;
  attrs?: { level?: number | undefined; date?: string | undefined; start?: number | undefined } | undefined;
  content?: NoticeNode[] | undefined;
}
/** The nodes that a notice may hold; `dayPlan` is filled in from the plan when it is read. */
export const NoticeNode: z.ZodType<NoticeNode> = z.lazy(() =>
  z.object({
    type: z.enum([
      'doc',
      'paragraph',
      'heading',
      'bulletList',
      'orderedList',
      'listItem',
      'text',
      'hardBreak',
      'blockquote',
      'dayPlan',
    ]),
    text: z.string().max(10_000).optional(),
    marks: z.array(Mark).max(5).optional(),
    attrs: z
      .object({ level: z.int().min(1).max(4), date: z.string().max(10), start: z.int() })
      .partial()
      .optional(),
    content: z.array(NoticeNode).max(500).optional(),
  }),
);

export const NoticeInput = z
  .object({
    title: z.string().trim().min(1, 'Give it a title.').max(120, 'At most 120 characters.'),
    body: NoticeNode,
    from: z.number().int().nullable().default(null),
    until: z.number().int().nullable().default(null),
    pinned: z.boolean().default(false),
    mail: z.boolean().default(false),
  })
  .refine((n) => n.until === null || n.from === null || n.until > n.from, {
    path: ['until'],
    message: 'It goes before it is seen.',
  });
export type NoticeInput = z.infer<typeof NoticeInput>;

/** A day of the plan as a notice shows it to one person. */
export interface DayPlan {
  date: string;
  sessions: { id: string; title: string; startsAt: number; endsAt: number; cancelled: boolean }[];
  materials: MaterialInfo[];
}

export interface NoticeInfo {
  id: string;
  title: string;
  body: NoticeNode;
  from: number;
  until: number | null;
  pinned: boolean;
  mailedAt: number | null;
  by: string;
  at: number;
  /** The days that its plan blocks speak of, for the reader. */
  days: DayPlan[];
}

export interface MaterialInfo {
  id: string;
  sessionId: string | null;
  name: string;
  /** A link's address; a file's own, good for some hours, for whoever asked. */
  url: string;
  kind: 'file' | 'link';
  bytes: number;
  type: string | null;
  by: string;
  at: number;
}

export const MaterialLink = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(160, 'At most 160 characters.'),
  url: z
    .url({ protocol: /^https?$/, error: 'Give a web address that begins with http:// or https://.' })
    .max(1000),
  sessionId: Id.nullable().default(null),
});

export interface ListedSession {
  course: string;
  title: string;
  series: string;
  startsAt: number;
  endsAt: number;
  zone: string;
  teachers: string[];
}

/** The way in by the link that a whole class shares. */
export interface ClassLinkInfo {
  path: string | null;
  passcode: string | null;
}
export const ClassLinkInput = z.object({
  do: z.enum(['show', 'hide', 'replace']),
  passcode: z.string().trim().min(4, 'At least four characters.').max(40).nullable().default(null),
});
export const VisitInput = z.object({
  name: PersonName,
  passcode: z.string().max(40),
});

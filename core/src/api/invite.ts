import { z } from 'zod';
import { line } from '../text';
import type { Capability } from '../limits/capabilities';
import { PersonName } from '../roster/names';
import type { Role } from '../roster/role';
import { Answer, type Reply } from '../mail/answer';
import { NoticeNode } from '../mail/notice';
import { Unwanted, type LetterState, type LetterTopic } from '../mail/topic';
import type { MemberScope } from '../roster/member';
import { Zone } from '../calendar/plan';

const Id = z.string().min(1).max(20);

export const ReplyInput = z.object({
  seriesId: Id,
  /** Of one session: its original date, and its place among those of that date. */
  date: z.string().max(10).nullable().default(null),
  take: z.int().min(0).max(2000).default(0),
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

export const InvitationInput = z.object({
  /** Those chosen; everyone who has no invitation yet where there is no list. */
  members: z.array(Id).max(5000).nullable().default(null),
  groups: z.array(z.string().max(40)).max(200).nullable().default(null),
  /** The instant at which they leave; now where there is none. */
  at: z.number().int().positive().nullable().default(null),
  copyToMe: z.boolean().default(false),
});

export type InvitationInput = z.infer<typeof InvitationInput>;

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

export const MeInput = z.object({
  zone: Zone.optional(),
  /** Empty or null: the class list's name. */
  preferredName: z.literal('').or(PersonName).nullable().optional(),
  /** As others should say them, in one's own words; empty or null: none are said. */
  pronouns: line('', 30, 0).nullable().optional(),
});

export const LettersInput = z.object({ quiet: z.array(Unwanted).max(3) });

export const NoticeInput = z
  .object({
    title: line('Give it a title.', 120),
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
  /** Those who teach alone have it. */
  forTeachers?: true;
}

export const MaterialLink = z.object({
  name: line('Give it a name.', 160),
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

import { z } from 'zod';
import { GroupName } from '../calendar/series';
import { Capability } from '../limits/schema';
import { PersonName } from './names';
import { Role } from './schema';

const Id = z.string().min(1).max(20);
const Email = z.string().trim().toLowerCase().min(1, 'Give an e-mail address.').max(254);

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
  name: PersonName,
  /** Empty: somebody who has none here, and is written to by nobody. */
  email: z.string('Give an e-mail address.').trim().toLowerCase().max(254),
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
  name: PersonName.optional(),
  email: Email.optional(),
  zone: z.string().max(64).optional(),
  group: GroupName.nullable().optional(),
  role: Role.optional(),
  scope: MemberScope.nullable().optional(),
});
export type MemberFields = z.infer<typeof MemberFields>;

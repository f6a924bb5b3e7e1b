import { ownValue, type Field } from './headings';
import { writeCsv } from './table';

/** The columns of a class list as we write it; the school's own stand after them. */
const COLUMNS = ['Name', 'E-mail', 'Time zone', 'Group', 'Role', 'Invitation', 'Reply'] as const;
/** What they are when they are read again: what the last three say is ours to say. */
const FIELDS: readonly Field[] = ['name', 'email', 'zone', 'group', 'skip', 'skip', 'skip'];

export interface WrittenMember {
  name: string;
  email: string;
  zone: string;
  group: string | null;
  role: string;
  invitation: string;
  reply: string;
  /** The school's own columns, by heading. */
  extra: Record<string, string>;
}

/** A class list, written so that read in again it changes nothing, and safe to open in a spreadsheet. */
export function writeClassList(members: readonly WrittenMember[]): string {
  const headings = [...new Set(members.flatMap((m) => Object.keys(m.extra)))];
  return writeCsv(
    [...COLUMNS, ...headings],
    members.map((m) => [
      ...[m.name, m.email, m.zone, m.group, m.role, m.invitation, m.reply],
      ...headings.map((h) => ownValue(m.extra, h) ?? null),
    ]),
  );
}

/** What the columns of a list of our own are; null where it is another's. */
export function ownFields(headings: readonly string[]): Field[] | null {
  if (!COLUMNS.every((c, i) => headings[i] === c)) return null;
  return headings.map((_, i) => FIELDS[i] ?? 'keep');
}

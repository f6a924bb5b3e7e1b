import type { IncomingHttpHeaders } from 'node:http';
import type { Role } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import type { Context } from '../context';
import { one } from '../db/pool';
import { AppError } from '../errors';
import { personByToken, type Person } from './store';

export const COOKIE = 'nb_session';

/** Who asks: an account by its session cookie, or a member by their personal link. */
export type Principal = { kind: 'account'; person: Person } | { kind: 'link'; member: MemberRow };

export interface MemberRow {
  id: string;
  courseId: string;
  personId: string;
  role: Role;
  group: string | null;
  name: string;
  email: string;
  zone: string;
}

const MEMBER = `SELECT m.id, m.course_id AS courseId, m.person_id AS personId, m.role, m.group_name AS \`group\`,
                       p.name, p.email, p.zone
                  FROM members m JOIN people p ON p.id = m.person_id`;

export const memberByLink = (ctx: Context, code: string) =>
  one<MemberRow>(ctx.db, `${MEMBER} WHERE m.link_code = ?`, [code]);

/** Written as `Authorization: Link CODE`; hyphens and capitals are for the eye. */
export const linkCode = (text: string): string => text.replaceAll('-', '').toLowerCase();

export function cookieOf(headers: IncomingHttpHeaders): string | null {
  for (const pair of (headers.cookie ?? '').split(';')) {
    const [name, value] = pair.trim().split('=');
    if (name === COOKIE && value) return value;
  }
  return null;
}

export async function principalOf(ctx: Context, headers: IncomingHttpHeaders): Promise<Principal> {
  const [scheme, code] = (headers.authorization ?? '').split(' ');
  if (scheme === 'Link' && code) {
    const member = await memberByLink(ctx, linkCode(code));
    if (!member) throw new AppError('link-unknown');
    return { kind: 'link', member };
  }
  const token = cookieOf(headers);
  const person = token ? await personByToken(ctx.db, token, ctx.now()) : null;
  if (!person) throw new AppError('not-signed-in');
  return { kind: 'account', person };
}

export const personIdOf = (p: Principal) => (p.kind === 'account' ? p.person.id : p.member.personId);

/** The principal as a member of this course. Somebody who is not on its class list learns nothing of it. */
export async function memberIn(ctx: Context, principal: Principal, courseId: string): Promise<MemberRow> {
  const member =
    principal.kind === 'link'
      ? principal.member
      : await one<MemberRow>(ctx.db, `${MEMBER} WHERE m.course_id = ? AND m.person_id = ?`, [
          courseId,
          principal.person.id,
        ]);
  if (!member || member.courseId !== courseId) throw new AppError('forbidden');
  return member;
}

export type Right = 'member' | 'teach' | 'plan';

/** `member`: on the class list. `teach`: teacher or assistant. `plan`: the teacher alone. */
export async function requireRight(ctx: Context, principal: Principal, courseId: string, right: Right) {
  const member = await memberIn(ctx, principal, courseId);
  const allowed =
    right === 'member' || (right === 'teach' ? teaches(member.role) : member.role === 'teacher');
  if (!allowed) throw new AppError('forbidden');
  return member;
}

import type { IncomingHttpHeaders } from 'node:http';
import type { Request } from 'express';
import { teaches } from '@nimble-bell/core/roster';
import type { Context } from '../context';
import { AppError } from '../errors';
import {
  deadLink,
  hashed,
  memberByCode,
  membersWhere,
  noteSeenAt,
  personByToken,
  type MemberRow,
  type Person,
} from './store';

export const COOKIE = 'nb_session';

/** Who asks: an account by its session cookie, or a member by their personal link. */
export type Principal =
  { kind: 'account'; person: Person; tokenHash: string } | { kind: 'link'; member: MemberRow };
const SEEN_MS = 60_000;

/** A class comes in within seconds: that they were here is written for all of them together, a moment later. */
const NOTED_MS = 100;
let noted = new Set<string>();

function noteSeen(ctx: Context, member: string, now: number) {
  if (noted.size === 0)
    setTimeout(() => {
      const members = [...noted];
      noted = new Set();
      noteSeenAt(ctx.db, now, members).catch((error: unknown) =>
        ctx.log.warn({ why: String(error) }, 'who was here was not noted'),
      );
    }, NOTED_MS).unref();
  noted.add(member);
}

/** The member whose link this is, unless it is past its time. That they were here is noted, once a minute. */
export async function memberByLink(ctx: Context, code: string): Promise<MemberRow | null> {
  const now = ctx.now();
  const row = await memberByCode(ctx.db, code, now);
  if (row && (row.lastSeen === null || row.lastSeen < now - SEEN_MS)) noteSeen(ctx, row.member.id, now);
  return row && byLink(row.member);
}

/**
 * Somebody as their link alone makes them. Whoever has an account teaches by signing in: their link, which others may have
 * read, carries a student's rights at most.
 */
export const byLink = (member: MemberRow): MemberRow =>
  member.hasAccount && teaches(member.role) ? { ...member, role: 'student', scope: null } : member;

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
    if (!member) throw await whyDead(ctx, linkCode(code));
    return { kind: 'link', member };
  }
  const token = cookieOf(headers);
  const person = token ? await personByToken(ctx.db, token, ctx.now()) : null;
  if (!token || !person) throw new AppError('not-signed-in');
  return { kind: 'account', person, tokenHash: hashed(token) };
}

/** Who asks, or null where it is nobody that is known. A store that does not answer is no such answer. */
export const principalIfAny = (ctx: Context, headers: IncomingHttpHeaders): Promise<Principal | null> =>
  principalOf(ctx, headers).catch((error: unknown) => {
    if (error instanceof AppError) return null;
    throw error;
  });

/** Why a link opens nothing: its person left the list, its time is over, or nobody has it. */
async function whyDead(ctx: Context, code: string): Promise<AppError> {
  const gone = await deadLink(ctx.db, code);
  if (!gone) return new AppError('link-unknown');
  const course = `${gone.code} ${gone.title}`;
  const said = gone.left
    ? `You are no longer on the class list of ${course}.`
    : `This link to ${course} was for a time that is over.`;
  return new AppError('off-list', gone.teacher ? `${said} If that is a mistake, ask ${gone.teacher}.` : said);
}

export const personIdOf = (p: Principal) => (p.kind === 'account' ? p.person.id : p.member.personId);

/** The principal as a member of this course. Somebody who is not on its class list learns nothing of it. */
export async function memberIn(ctx: Context, principal: Principal, courseId: string): Promise<MemberRow> {
  const member =
    principal.kind === 'link'
      ? principal.member
      : (
          await membersWhere(ctx.db, 'm.course_id = ? AND m.person_id = ?', [courseId, principal.person.id])
        )[0];
  if (!member || member.courseId !== courseId) throw new AppError('forbidden');
  return member;
}

export type Right = 'member' | 'teach' | 'plan';

/** `member`: on the class list. `teach`: teacher or assistant. `plan`: a teacher of the whole course. */
export async function requireRight(ctx: Context, principal: Principal, courseId: string, right: Right) {
  const member = await memberIn(ctx, principal, courseId);
  const allowed =
    right === 'member' ||
    (right === 'teach' ? teaches(member.role) : member.role === 'teacher' && member.scope === null);
  if (!allowed) throw new AppError('forbidden');
  return member;
}

/** Whoever asks, as a member of the course in the path (`/courses/:course/…`), with the right that the request needs. */
export const asked = async (ctx: Context, req: Request, right: Right) =>
  requireRight(ctx, await principalOf(ctx, req.headers), req.params.course as string, right);

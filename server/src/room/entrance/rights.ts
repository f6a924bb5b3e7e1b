import type { Capability, MemberScope, Role } from '@nimble-bell/core/api';
import { byLink } from '../../accounts/principal';
import { liveTokens, membersWhere, type MemberRow } from '../../accounts/store';
import { linesOf } from '../../telephone/store';
import type { Context } from '../../context';

/** By what somebody is in a room: their link, the sign-in of their account, or their PIN on a telephone line. */
export type Credential =
  | { kind: 'link'; code: string }
  | { kind: 'account'; tokenHash: string }
  | { kind: 'pin'; pin: string; line: string };

export interface Standing {
  member: MemberRow;
  credential: Credential;
}

/**
 * What these people are now, by their place in the list: their row as it is, or null for whoever has left the class list,
 * whose link or PIN was replaced or is past its time, or who signed out. Three questions at most for all of them.
 */
export async function standingNow(ctx: Context, people: readonly Standing[]): Promise<(MemberRow | null)[]> {
  if (people.length === 0) return [];
  const tokens = people.flatMap(({ credential }) =>
    credential.kind === 'account' ? [credential.tokenHash] : [],
  );
  const calling = people.flatMap((p) => (p.credential.kind === 'pin' ? [p.member.courseId] : []));
  const [members, signedIn, lines] = await Promise.all([
    membersWhere(ctx.db, 'm.id IN (?)', [[...new Set(people.map((p) => p.member.id))]]),
    tokens.length ? liveTokens(ctx.db, [...new Set(tokens)], ctx.now()) : Promise.resolve(new Set<string>()),
    calling.length ? linesOf(ctx.db, [...new Set(calling)]) : Promise.resolve(new Map<string, string>()),
  ]);
  const inTime = (m: MemberRow) => m.linkUntil === null || m.linkUntil > ctx.now();
  const byId = new Map(members.map((m) => [m.id, m]));
  return people.map(({ member, credential }) => {
    const now = byId.get(member.id);
    if (!now) return null;
    if (credential.kind === 'account') return signedIn.has(credential.tokenHash) ? now : null;
    if (credential.kind === 'pin')
      return now.pin === credential.pin && lines.get(now.courseId) === credential.line && inTime(now)
        ? byLink(now)
        : null;
    return now.link === credential.code && inTime(now) ? byLink(now) : null;
  });
}

/** What decides about rights, and what one is called: whether any of it differs. */
export const isOther = (a: MemberRow, b: MemberRow): boolean => key(a) !== key(b);
const key = (m: MemberRow) =>
  JSON.stringify([m.role, m.name, m.group, m.scope, m.capabilities, m.pronouns] satisfies [
    Role,
    string,
    string | null,
    MemberScope | null,
    Capability[],
    string | null,
  ]);

import type { MemberInfo, MemberScope, Reply, Role } from '@nimble-bell/core/api';
import type { KnownMember } from '@nimble-bell/core/roster';
import { newId, newLinkCode } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';
import { AppError } from '../errors';

interface RawMember extends Omit<
  MemberInfo,
  'link' | 'invitation' | 'extra' | 'scope' | 'capabilities' | 'replies'
> {
  code: string;
  extra: unknown;
  scope: unknown;
  capabilities: unknown;
  jobState: string | null;
  bounced: number | null;
}

const MEMBERS = `SELECT m.id, m.name, p.preferred_name AS preferredName, p.email, m.zone, p.zone_own AS zoneOwn, m.role, m.group_name AS \`group\`,
                        m.extra, m.scope, m.capabilities, m.link_code AS code, m.pin, m.link_at AS linkAt, m.link_until AS linkUntil,
                        m.last_seen AS lastSeen, j.state AS jobState, j.bounced_at AS bounced
                   FROM members m JOIN people p ON p.id = m.person_id
                   LEFT JOIN jobs j ON j.id = (SELECT MAX(i.id) FROM jobs i
                     WHERE i.member_id = m.id AND i.kind = 'mail' AND i.topic IN ('invitation', 'link'))
                  WHERE m.course_id = ?
                  ORDER BY FIELD(m.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), m.name`;

const invitationOf = (m: RawMember): MemberInfo['invitation'] => {
  if (m.bounced !== null) return 'bounced';
  if (m.jobState === 'done') return 'sent';
  if (m.jobState === null) return 'none';
  return m.jobState === 'failed' || m.jobState === 'void' ? m.jobState : 'queued';
};

/** Everyone on a class list, those who teach first. */
export async function membersOf(db: Db, course: string): Promise<MemberInfo[]> {
  const [found, replies] = await Promise.all([
    rows<RawMember>(db, MEMBERS, [course]),
    rows<Reply & { member: string }>(
      db,
      `SELECT r.member_id AS member, r.series_id AS seriesId, NULLIF(r.local_date, '') AS date, r.answer, r.at
         FROM replies r JOIN members m ON m.id = r.member_id WHERE m.course_id = ?`,
      [course],
    ),
  ]);
  const byMember = new Map<string, Reply[]>();
  for (const { member, ...reply } of replies) byMember.set(member, [...(byMember.get(member) ?? []), reply]);
  return found.map((m) => {
    const { code, jobState, bounced, ...rest } = m;
    return {
      ...rest,
      zoneOwn: Boolean(m.zoneOwn),
      extra: json<Record<string, string>>(m.extra),
      scope: m.scope === null ? null : json<MemberScope>(m.scope),
      capabilities: m.capabilities === null ? [] : json<MemberInfo['capabilities']>(m.capabilities),
      link: `/in/${code}`,
      invitation: invitationOf(m),
      replies: byMember.get(m.id) ?? [],
    };
  });
}

/** A class list as an import is compared with it. */
export async function knownMembers(db: Db, course: string): Promise<KnownMember[]> {
  const found = await rows<Omit<KnownMember, 'extra' | 'zoneOwn'> & { extra: unknown; zoneOwn: number }>(
    db,
    `SELECT m.id, m.name, p.email, m.zone, p.zone_own AS zoneOwn, m.group_name AS \`group\`, m.extra, m.role
       FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ?`,
    [course],
  );
  return found.map((m) => ({ ...m, extra: json(m.extra), zoneOwn: Boolean(m.zoneOwn) }));
}

export interface NewPerson {
  name: string;
  email: string;
  zone: string;
  group: string | null;
  extra?: Record<string, string>;
  role?: Role;
  scope?: MemberScope | null;
  until?: number | null;
  capabilities?: readonly string[];
}

const CHUNK = 500;
const chunks = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / CHUNK) }, (_, i) => all.slice(i * CHUNK, (i + 1) * CHUNK));

/**
 * Puts people on a class list, and into the college's people where their address is new. Whoever was on it before
 * comes back as themselves, with their past and a new link. Gives their member ids, in the same order.
 */
export async function enrolAll(db: Db, courseId: string, people: readonly NewPerson[]): Promise<string[]> {
  const ids: string[] = [];
  for (const some of chunks(people)) ids.push(...(await enrolSome(db, courseId, some)));
  return ids;
}

async function enrolSome(db: Db, courseId: string, people: readonly NewPerson[]): Promise<string[]> {
  const emails = people.map((p) => p.email);
  const findPeople = () =>
    rows<{ id: string; email: string }>(db, 'SELECT id, email FROM people WHERE email IN (?)', [emails]);
  const known = new Set((await findPeople()).map((p) => p.email));
  const fresh = people.filter((p) => !known.has(p.email));
  if (fresh.length)
    await run(db, 'INSERT INTO people (id, name, email, zone) VALUES ?', [
      fresh.map((p) => [newId(), p.name, p.email, p.zone]),
    ]);
  const personIds = new Map((await findPeople()).map((p) => [p.email, p.id]));
  await run(
    db,
    `INSERT INTO enrolments (id, course_id, person_id, role, group_name, link_code, extra, scope, capabilities, link_until, own_name, own_zone)
     VALUES ? ON DUPLICATE KEY UPDATE left_at = NULL, role = VALUES(role), group_name = VALUES(group_name),
       link_code = VALUES(link_code), link_at = NULL, pin = NULL, extra = VALUES(extra), scope = VALUES(scope),
       capabilities = VALUES(capabilities), link_until = VALUES(link_until),
       own_name = VALUES(own_name), own_zone = VALUES(own_zone)`,
    [
      people.map((p) => [
        newId(),
        courseId,
        personIds.get(p.email),
        p.role ?? 'student',
        p.group,
        newLinkCode(),
        JSON.stringify(p.extra ?? {}),
        p.scope ? JSON.stringify(p.scope) : null,
        p.capabilities?.length ? JSON.stringify(p.capabilities) : null,
        p.until ?? null,
        p.name,
        p.zone,
      ]),
    ],
  );
  const members = await rows<{ id: string; personId: string }>(
    db,
    'SELECT id, person_id AS personId FROM members WHERE course_id = ? AND person_id IN (?)',
    [courseId, [...personIds.values()]],
  );
  const byPerson = new Map(members.map((m) => [m.personId, m.id]));
  return people.map((p) => byPerson.get(personIds.get(p.email)!)!);
}

/** Whether the person of this address is on the course's list now. */
export const memberByAddress = (db: Db, course: string, email: string) =>
  one<{ id: string; role: Role }>(
    db,
    'SELECT m.id, m.role FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND p.email = ?',
    [course, email],
  );

/** Those of a course's list, all of whom must be on it. */
export async function ownMembers(db: Db, courseId: string, ids: readonly string[]) {
  const members = await rows<{ id: string; name: string }>(
    db,
    'SELECT m.id, m.name FROM members m WHERE m.course_id = ? AND m.id IN (?)',
    [courseId, [...ids]],
  );
  if (members.length < new Set(ids).size)
    throw new AppError('not-found', 'There is no such person on the class list.');
  return members;
}

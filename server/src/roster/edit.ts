import type { ListEdit, MemberFields, NewMember, Term } from '@nimble-bell/core/api';
import { countWords, isZone } from '@nimble-bell/core/calendar';
import { compareLists, faultOf, isAddress, nobodysAddress, type Settlement } from '@nimble-bell/core/roster';
import { newId, newLinkCode } from '../context';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import {
  asNewPerson,
  enrolAll,
  knownMembers,
  leaveList,
  memberByAddress,
  ofCourse,
  onOtherList,
  ownMembers,
  personBehind,
  personOf,
  replaceLink,
  setAddress,
  setExtra,
  setPerson,
  teacherOfAll,
  writeFields,
} from './store';

export interface ListEditing {
  db: Db;
  courseId: string;
  term: Term;
  now: number;
}

/** Does an edit of a class list, and gives it in words. */
export async function applyListEdit(at: ListEditing, edit: ListEdit): Promise<string> {
  switch (edit.edit) {
    case 'import':
      return importRows(at, edit);
    case 'add':
      return addOne(at, edit.person);
    case 'change':
      return changeFields(at, edit.members, edit.fields);
    case 'drop':
      return drop(at, edit.members);
    case 'replace-links':
      return replaceLinks(at, edit.members);
  }
}

type Import = Extract<ListEdit, { edit: 'import' }>;

async function importRows(at: ListEditing, edit: Import): Promise<string> {
  const bad = edit.rows.map((r) => ({ line: r.line, reason: faultOf(r) })).filter((r) => r.reason);
  if (bad.length)
    throw new AppError(
      'invalid',
      `Line ${bad[0]!.line}: ${bad[0]!.reason} Nothing was written.`,
      bad.map((b) => ({ path: `rows.${b.line}`, message: b.reason! })),
    );
  const known = await knownMembers(at.db, at.courseId);
  const settled = new Map<number, Settlement>(edit.settled.map((s) => [s.line, s.as]));
  const { fresh, changed, gone, alike, twins } = compareLists(edit.rows, known, settled);
  const leaving = edit.drop.filter((id) => gone.some((g) => g.id === id));
  await enrolAll(
    at.db,
    at.courseId,
    fresh.map(({ line, ...row }) => ({ ...row, zone: row.zone ?? at.term.zone })),
  );
  for (const { member, row, fields } of changed) {
    const has = (field: string) => fields.some((f) => f.field === field);
    if (fields.some((f) => Object.hasOwn(row.extra, f.field)))
      await setExtra(at.db, { ...member.extra, ...row.extra }, member.id);
    await setFields(at, member.id, {
      ...(has('name') ? { name: row.name } : {}),
      ...(has('email') ? { email: row.email } : {}),
      ...(has('zone') ? { zone: row.zone! } : {}),
      ...(has('group') ? { group: row.group } : {}),
    });
  }
  if (leaving.length) await leave(at, leaving);
  const open = alike.length + twins.length;
  const left = open ? `, ${countWords(open, 'row')} left out that may be somebody known` : '';
  return `Class list read: ${fresh.length} new, ${changed.length} changed, ${leaving.length} gone${left}`;
}

async function addOne(at: ListEditing, given: NewMember): Promise<string> {
  const person = { ...given, email: given.email || nobodysAddress('brought', newId()) };
  const zone = person.zone ?? at.term.zone;
  checkFields({ email: person.email, zone });
  const member = await memberByAddress(at.db, at.courseId, person.email);
  if (member)
    throw new AppError('invalid', undefined, [
      { path: 'person.email', message: `This address is on the class list already, as ${member.role}.` },
    ]);
  await checkScope(at, person.scope);
  const rest = person.role === 'guest' ? { capabilities: person.capabilities } : {};
  await enrolAll(at.db, at.courseId, [{ ...person, ...rest, zone }]);
  return `${person.name} added as ${person.role}`;
}

async function changeFields(at: ListEditing, ids: string[], fields: MemberFields): Promise<string> {
  const members = await ownMembers(at.db, at.courseId, ids);
  if (ids.length > 1 && (fields.name ?? fields.email))
    throw new AppError('invalid', 'A name or an address is one person’s.');
  checkFields(fields);
  await checkScope(at, fields.scope ?? null);
  for (const id of ids) await setFields(at, id, fields);
  await needTeacher(at);
  const what = Object.keys(fields).join(', ');
  return members.length === 1
    ? `${members[0]!.name}: ${what} changed`
    : `${countWords(members.length, 'person', 'people')}: ${what} changed`;
}

function checkFields({ email, zone }: { email?: string | undefined; zone?: string | undefined }) {
  const fault = (path: string, message: string) => new AppError('invalid', message, [{ path, message }]);
  if (email !== undefined && !isAddress(email)) throw fault('email', `"${email}" is not an e-mail address.`);
  if (zone !== undefined && !isZone(zone))
    throw fault('zone', `The time zone "${zone}" is not known. Use a name such as America/Halifax.`);
}

/** A new address may be one that the college knows already: then the line is that person's. */
async function setFields(at: ListEditing, id: string, fields: MemberFields) {
  const { db } = at;
  const { personId, account } = (await personBehind(db, id))!;
  const { email, name, zone, group, role, scope } = fields;
  if (account && (email ?? name ?? zone) !== undefined)
    throw new AppError('invalid', 'Somebody with an account looks after their own name, address and zone.');
  if (email !== undefined) {
    if (await memberByAddress(db, at.courseId, email))
      throw new AppError('invalid', `"${email}" is on the class list already.`);
    const other = await personOf(db, email);
    if (other) await setPerson(db, other.id, id);
    else if (await isOfThisCourseAlone(db, personId, at.courseId)) await setAddress(db, email, personId);
    else await asNewPerson(db, id, email);
  }
  // What a course calls somebody, and where it takes them to be, is its own: other courses have theirs.
  await writeFields(db, id, { name, zone, group, role, scope });
}

/** Whether nobody but this course has ever had the person on a list: then their address is this course's to correct. */
const isOfThisCourseAlone = async (db: Db, personId: string, courseId: string): Promise<boolean> =>
  !(await onOtherList(db, personId, courseId));

async function checkScope(at: ListEditing, scope: { series: string[]; sessions: string[] } | null) {
  if (!scope) return;
  const known = async (table: 'series' | 'sessions', ids: string[]) =>
    !ids.length || (await ofCourse(at.db, table, at.courseId, ids)).length === new Set(ids).size;
  if (!(await known('series', scope.series)) || !(await known('sessions', scope.sessions)))
    throw new AppError('not-found', 'There is no such session in this course.');
  if (!scope.series.length && !scope.sessions.length)
    throw new AppError('invalid', 'Say for which sessions, or for the whole course.');
}

async function drop(at: ListEditing, ids: string[]): Promise<string> {
  const members = await ownMembers(at.db, at.courseId, ids);
  await leave(at, ids);
  await needTeacher(at);
  return members.length === 1
    ? `${members[0]!.name} taken off the list`
    : `${countWords(members.length, 'person', 'people')} taken off the list`;
}

const leave = (at: ListEditing, ids: readonly string[]) => leaveList(at.db, at.now, ids);

/** A course keeps a teacher for all of it. */
async function needTeacher(at: ListEditing) {
  const teacher = await teacherOfAll(at.db, at.courseId);
  if (!teacher) throw new AppError('invalid', 'A course keeps at least one teacher for all of it.');
}

async function replaceLinks(at: ListEditing, ids: string[]): Promise<string> {
  const members = await ownMembers(at.db, at.courseId, ids);
  for (const id of ids) await replaceLink(at.db, newLinkCode(), at.now, id);
  return members.length === 1
    ? `${members[0]!.name}: the link replaced`
    : `${countWords(members.length, 'link')} replaced`;
}

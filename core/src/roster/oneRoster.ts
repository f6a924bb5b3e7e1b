import type { ListRow } from './classList';
import { readTable, type Table } from './table';

/** A class of a OneRoster CSV set, with how many students it enrols. */
export interface RosterClass {
  id: string;
  title: string;
  students: number;
}

const USERS = {
  id: /^sourcedId$/i,
  status: /^status$/i,
  given: /^givenName$/i,
  family: /^familyName$/i,
  preferredGiven: /^preferredGivenName$/i,
  preferredFamily: /^preferredFamilyName$/i,
  email: /^email$/i,
  enabled: /^enabledUser$/i,
};
const CLASSES = {
  id: /^sourcedId$/i,
  status: /^status$/i,
  title: /^title$/i,
  code: /^classCode$/i,
  course: /^courseSourcedId$/i,
};
const ENROLLMENTS = {
  classId: /^classSourcedId$/i,
  userId: /^userSourcedId$/i,
  role: /^role$/i,
  status: /^status$/i,
  begin: /^beginDate$/i,
  end: /^endDate$/i,
};

/** The three files of a OneRoster CSV set that make a class list (1EdTech OneRoster 1.1 and 1.2, CSV binding, chapter 3). */
export interface OneRosterSet {
  users: Table<keyof typeof USERS>;
  classes: Table<keyof typeof CLASSES>;
  enrollments: Table<keyof typeof ENROLLMENTS>;
}

type Kind = keyof OneRosterSet;

/** Which file of the set a text is, by its headings: names of files are not to be relied on. */
function kindOf(text: string): Kind | null {
  const heading = text.replace(/^\uFEFF/, '').split(/\r?\n/, 1)[0] ?? '';
  const has = (word: string) => new RegExp(`(^|[",;])${word}([",;]|$)`, 'i').test(heading);
  if (has('userSourcedId') && has('classSourcedId')) return 'enrollments';
  if (has('sourcedId') && has('givenName') && has('familyName')) return 'users';
  if (has('sourcedId') && has('title') && has('courseSourcedId')) return 'classes';
  return null;
}

/** The set among some files, or what is missing from it; null where none of the files is of one. */
export function oneRosterOf(texts: readonly string[]): OneRosterSet | { missing: Kind[] } | null {
  const found: Partial<Record<Kind, string>> = {};
  for (const text of texts) {
    const kind = kindOf(text);
    if (kind) found[kind] = text;
  }
  if (!Object.keys(found).length) return null;
  const missing = (['users', 'classes', 'enrollments'] as const).filter((k) => !found[k]);
  if (missing.length) return { missing };
  return {
    users: readTable(found.users!, USERS)!,
    classes: readTable(found.classes!, CLASSES)!,
    enrollments: readTable(found.enrollments!, ENROLLMENTS)!,
  };
}

const cellIn =
  <K extends string>(table: Table<K>) =>
  (cells: readonly string[], column: K): string => {
    const at = table.columns[column];
    return at === undefined ? '' : (cells[at] ?? '').trim();
  };

/** Somebody whom a set names for a class, and who is not of it on the day, with why. */
export interface LeftOut {
  name: string;
  reason: string;
}

/** A bulk set leaves the status empty; a delta says who is to go, and older sets who is no longer active. */
const stands = (status: string) => !/^(tobedeleted|inactive)$/i.test(status);

const isDisabled = (enabled: string) => /^(false|0|no)$/i.test(enabled);

interface Enrolment {
  classId: string;
  userId: string;
  /** Why it does not count on the day; null where it does. */
  out: string | null;
}

/** The enrolments of students, on a day; each person once a class, by the one that counts where there is one. */
function enrolments(set: OneRosterSet, today: string): Enrolment[] {
  const cell = cellIn(set.enrollments);
  const user = cellIn(set.users);
  const users = new Map(set.users.rows.map((row) => [user(row.cells, 'id'), row.cells]));
  const found = new Map<string, Enrolment>();
  for (const { cells } of set.enrollments.rows) {
    if (!/^student$/i.test(cell(cells, 'role'))) continue;
    const [classId, userId] = [cell(cells, 'classId'), cell(cells, 'userId')];
    const [begin, end] = [cell(cells, 'begin'), cell(cells, 'end')];
    const person = users.get(userId);
    const out = !stands(cell(cells, 'status'))
      ? 'The set takes the enrolment away.'
      : person && !stands(user(person, 'status'))
        ? 'The set takes the person away.'
        : person && isDisabled(user(person, 'enabled'))
          ? 'The account is switched off (enabledUser).'
          : end && end < today
            ? `The enrolment ended on ${end}.`
            : begin && begin > today
              ? `The enrolment begins on ${begin}: read the set again then.`
              : null;
    const key = `${classId} ${userId}`;
    if (out === null || !found.has(key)) found.set(key, { classId, userId, out });
  }
  return [...found.values()];
}

/** The classes of a set. `today` is a local date: who is not enrolled on it does not count. */
export function rosterClasses(set: OneRosterSet, today: string): RosterClass[] {
  const cell = cellIn(set.classes);
  const students = new Map<string, number>();
  for (const { classId, out } of enrolments(set, today))
    if (out === null) students.set(classId, (students.get(classId) ?? 0) + 1);
  return set.classes.rows
    .filter(({ cells }) => stands(cell(cells, 'status')))
    .map(({ cells }) => ({
      id: cell(cells, 'id'),
      title: [cell(cells, 'code'), cell(cells, 'title')].filter(Boolean).join(' ') || cell(cells, 'id'),
      students: students.get(cell(cells, 'id')) ?? 0,
    }));
}

/**
 * The class list of one class on a day, as rows that are checked like any other's, and who is left out. Users that are
 * missing are named by their id.
 */
export function rosterRows(
  set: OneRosterSet,
  classId: string,
  today: string,
): { rows: ListRow[]; leftOut: LeftOut[] } {
  const cell = cellIn(set.users);
  const users = new Map(set.users.rows.map((row) => [cell(row.cells, 'id'), row]));
  const rows: ListRow[] = [];
  const leftOut: LeftOut[] = [];
  for (const { userId, out } of enrolments(set, today).filter((e) => e.classId === classId)) {
    const user = users.get(userId);
    const part = (preferred: 'preferredGiven' | 'preferredFamily', plain: 'given' | 'family') =>
      user ? cell(user.cells, preferred) || cell(user.cells, plain) : '';
    const parts = [part('preferredGiven', 'given'), part('preferredFamily', 'family')].filter(Boolean);
    const name = parts.join(' ') || userId;
    const email = user ? cell(user.cells, 'email').toLowerCase() : '';
    if (out !== null) leftOut.push({ name, reason: out });
    else rows.push({ line: user?.line ?? 0, name, email, zone: null, group: null, extra: {} });
  }
  return { rows, leftOut };
}

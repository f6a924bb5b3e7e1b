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

/** A bulk set leaves the status empty; a delta says who is to go. */
const stands = (status: string) => !/^tobedeleted$/i.test(status);

/** Students enrolled in each class, by the ids of their users. */
function enrolled(set: OneRosterSet, today: string): Map<string, Set<string>> {
  const cell = cellIn(set.enrollments);
  const by = new Map<string, Set<string>>();
  for (const { cells } of set.enrollments.rows) {
    const end = cell(cells, 'end');
    if (!stands(cell(cells, 'status')) || !/^student$/i.test(cell(cells, 'role'))) continue;
    if (end && end < today) continue;
    const id = cell(cells, 'classId');
    by.set(id, (by.get(id) ?? new Set()).add(cell(cells, 'userId')));
  }
  return by;
}

/** The classes of a set. `today` is a local date: who left before it is not enrolled. */
export function rosterClasses(set: OneRosterSet, today: string): RosterClass[] {
  const cell = cellIn(set.classes);
  const students = enrolled(set, today);
  return set.classes.rows
    .filter(({ cells }) => stands(cell(cells, 'status')))
    .map(({ cells }) => ({
      id: cell(cells, 'id'),
      title: [cell(cells, 'code'), cell(cells, 'title')].filter(Boolean).join(' ') || cell(cells, 'id'),
      students: students.get(cell(cells, 'id'))?.size ?? 0,
    }));
}

/** The class list of one class, as rows that are checked like any other's. Users that are missing are named by their id. */
export function rosterRows(set: OneRosterSet, classId: string, today: string): ListRow[] {
  const cell = cellIn(set.users);
  const users = new Map(set.users.rows.map((row) => [cell(row.cells, 'id'), row]));
  const wanted = [...(enrolled(set, today).get(classId) ?? [])];
  return wanted.map((id) => {
    const user = users.get(id);
    if (!user) return { line: 0, name: id, email: '', zone: null, group: null, extra: {} };
    const part = (preferred: 'preferredGiven' | 'preferredFamily', plain: 'given' | 'family') =>
      cell(user.cells, preferred) || cell(user.cells, plain);
    return {
      line: user.line,
      name: [part('preferredGiven', 'given'), part('preferredFamily', 'family')].filter(Boolean).join(' '),
      email: cell(user.cells, 'email').toLowerCase(),
      zone: null,
      group: null,
      extra: {},
    };
  });
}

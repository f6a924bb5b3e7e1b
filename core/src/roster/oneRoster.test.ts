import fc from 'fast-check';
import { oneRosterOf, rosterClasses, rosterRows, type OneRosterSet } from './oneRoster';
import { many } from '../testing/many';

const users = [
  'sourcedId,status,dateLastModified,enabledUser,username,givenName,familyName,email,preferredGivenName',
  'u1,,,true,ana,Ana,Lanyon,ANA@saltmarsh.example,',
  'u2,,,true,ben,Benedict,Garrow,ben@saltmarsh.example,Ben',
  'u3,,,true,maren,Maren,Oduya,maren@saltmarsh.example,',
  'u4,,,true,cleo,Cleo,Penhale,,',
].join('\n');
const classes = [
  'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType',
  'c1,,,Coastal Navigation,,k1,NAV-210,scheduled',
  'c2,,,Weather at Sea,,k2,MET-140,scheduled',
  'c3,tobedeleted,,Old,,k3,OLD-1,scheduled',
].join('\n');
const enrollments = [
  'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate',
  'e1,,,c1,s,u1,student,false,,',
  'e2,,,c1,s,u2,student,false,,',
  'e3,,,c1,s,u3,teacher,true,,',
  'e4,tobedeleted,,c1,s,u4,student,false,,',
  'e5,,,c2,s,u4,student,false,,2026-01-31',
  'e6,,,c2,s,u9,student,false,,2026-12-31',
].join('\n');
const today = '2026-10-06';

test('a OneRoster set gives its classes and the list of one, whatever the files are called', () => {
  const set = oneRosterOf([enrollments, users, classes]) as OneRosterSet;
  expect(rosterClasses(set, today)).toEqual([
    { id: 'c1', title: 'NAV-210 Coastal Navigation', students: 2 },
    { id: 'c2', title: 'MET-140 Weather at Sea', students: 1 },
  ]);
  expect(rosterRows(set, 'c1', today).rows).toMatchObject([
    { line: 2, name: 'Ana Lanyon', email: 'ana@saltmarsh.example' },
    { line: 3, name: 'Ben Garrow', email: 'ben@saltmarsh.example' },
  ]);
  expect(rosterRows(set, 'c2', today).rows).toMatchObject([{ name: 'u9', email: '' }]);
});

test('what is missing from a set is said, and another file is no set', () => {
  expect(oneRosterOf([users, classes])).toEqual({ missing: ['enrollments'] });
  expect(oneRosterOf(['Name,E-mail\nAna,ana@saltmarsh.example'])).toBeNull();
});

test.each<[string, string, string, string | null]>([
  ['as every bulk set has it', ',true', ',,', null],
  ['an account switched off', ',false', ',,', 'The account is switched off (enabledUser).'],
  ['a person who is to go', 'tobedeleted,true', ',,', 'The set takes the person away.'],
  ['an enrolment that is to go', ',true', 'tobedeleted,,', 'The set takes the enrolment away.'],
  ['one that is no longer active', ',true', 'inactive,,', 'The set takes the enrolment away.'],
  ['one that ended', ',true', ',,2026-10-05', 'The enrolment ended on 2026-10-05.'],
  ['one that ends today', ',true', ',,2026-10-06', null],
  ['one that begins today', ',true', ',2026-10-06,', null],
  [
    'one that begins tomorrow',
    ',true',
    ',2026-10-07,',
    'The enrolment begins on 2026-10-07: read the set again then.',
  ],
])('of a set: %s', (_name, user, enrolment, reason) => {
  const set = oneRosterOf([
    `sourcedId,status,enabledUser,givenName,familyName,email\nu1,${user},Ana,Lanyon,ana@saltmarsh.example`,
    classes,
    `sourcedId,status,beginDate,endDate,classSourcedId,userSourcedId,role\ne,${enrolment},c1,u1,student`,
  ]) as OneRosterSet;
  const { rows, leftOut } = rosterRows(set, 'c1', today);
  expect(leftOut).toEqual(reason === null ? [] : [{ name: 'Ana Lanyon', reason }]);
  expect(rows).toHaveLength(reason === null ? 1 : 0);
  expect(rosterClasses(set, today)[0]!.students).toBe(rows.length);
});

test('somebody enrolled twice is of the class while one enrolment stands', () => {
  const twice = `sourcedId,status,endDate,classSourcedId,userSourcedId,role\ne,,2026-09-30,c1,u1,student\nf,,,c1,u1,student`;
  const set = oneRosterOf([users, classes, twice]) as OneRosterSet;
  expect(rosterRows(set, 'c1', today)).toMatchObject({ rows: [{ name: 'Ana Lanyon' }], leftOut: [] });
});

const cell = fc.oneof(
  fc.constantFrom(
    'u1',
    'u2',
    'c1',
    'student',
    'teacher',
    'tobedeleted',
    'true',
    'false',
    '2026-10-06',
    '',
    '"',
  ),
  fc.string({ maxLength: 6 }),
);
const body = fc.array(
  fc.array(cell, { maxLength: 10 }).map((c) => c.join(',')),
  { maxLength: 8 },
);

test('torn and odd sets are read without failing; nobody is both of a class and left out', () => {
  const headOf = (text: string) => text.split('\n', 1)[0]!;
  fc.assert(
    fc.property(body, body, body, (u, c, e) => {
      const table = (head: string, lines: string[]) => [headOf(head), ...lines].join('\n');
      const set = oneRosterOf([table(users, u), table(classes, c), table(enrollments, e)]) as OneRosterSet;
      for (const { id, students } of rosterClasses(set, today)) {
        const { rows } = rosterRows(set, id, today);
        expect(rows).toHaveLength(students);
      }
    }),
    { numRuns: many(20_000) },
  );
});

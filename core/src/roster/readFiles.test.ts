import { strToU8, zipSync } from 'fflate';
import { importOf, readAndCompare, summaryOf, type KnownMember, type ListQuestion } from './index';

const known: KnownMember[] = [
  {
    id: 'm1',
    name: 'Ana Lanyon',
    email: 'ana@saltmarsh.example',
    zone: 'America/Halifax',
    group: null,
    extra: {},
    role: 'student',
  },
];
const ask = (more: Partial<ListQuestion>) =>
  readAndCompare({ text: null, files: [], members: known, today: '2026-10-06', ...more });
const file = (name: string, text: string) => ({ name, bytes: strToU8(text) });

const USERS = file(
  'users.csv',
  'sourcedId,status,enabledUser,givenName,familyName,email\nu1,,true,Ana,Lanyon,ana@saltmarsh.example\nu2,,true,Cleo,Penhale,\n',
);
const CLASSES = file(
  'classes.csv',
  'sourcedId,status,title,courseSourcedId,classCode\nc1,,Coastal Navigation,k,NAV-210\nc2,,Weather at Sea,k,MET-140\n',
);
const ENROLLMENTS = file(
  'enrollments.csv',
  'sourcedId,classSourcedId,schoolSourcedId,userSourcedId,role\ne1,c1,s,u1,student\ne2,c1,s,u2,student\n',
);

test('a paste is read and compared with the list there is', () => {
  const { list, comparison, classes } = ask({
    text: 'Name,E-mail\nAna Lanyon,ana@saltmarsh.example\nBen Garrow,ben@saltmarsh.example',
  });
  expect(list.fault).toBeNull();
  expect(comparison).toMatchObject({ same: 1, fresh: [{ name: 'Ben Garrow' }] });
  expect(classes).toBeNull();
});

test('a file says how it was read', () => {
  const latin = Uint8Array.from([...'Name;E-mail\nZoë;zoe@saltmarsh.example'].map((c) => c.charCodeAt(0)));
  const { encoding, comparison } = ask({ files: [{ name: 'list.csv', bytes: latin }] });
  expect(encoding).toBe('windows-1252');
  expect(comparison.fresh[0]!.name).toBe('Zoë');
});

test.each([
  ['three files in any order', [ENROLLMENTS, USERS, CLASSES]],
  [
    'an archive',
    [
      {
        name: 'set.zip',
        bytes: zipSync({
          'a/users.csv': USERS.bytes,
          'classes.csv': CLASSES.bytes,
          'e.csv': ENROLLMENTS.bytes,
        }),
      },
    ],
  ],
])('a OneRoster set as %s gives its classes, then the list of the one chosen', (_name, files) => {
  const first = ask({ files });
  expect(first.classes!.map((c) => [c.id, c.students])).toEqual([
    ['c1', 2],
    ['c2', 0],
  ]);
  expect(first.list.rows).toEqual([]);
  const chosen = ask({ files, rosterClass: 'c1' });
  expect(chosen.comparison.same).toBe(1);
  expect(chosen.list.bad).toMatchObject([{ reason: 'The e-mail address is missing.' }]);
});

test('a set that is not whole says what is missing; a broken archive is no list', () => {
  const { list } = ask({ files: [USERS, CLASSES] });
  expect(list.fault).toBe('The OneRoster set is missing its enrollments file.');
  const broken = ask({ files: [{ name: 'x.zip', bytes: strToU8('PK not an archive') }] });
  expect(broken.list.fault).toContain('There is nothing to read.');
});

test('a long list is told by its first rows and their number, and written whole', () => {
  const people = Array.from({ length: 400 }, (_, i) => `Tide Reader ${i},r${i}@saltmarsh.example`);
  const answer = ask({ text: ['Name,E-mail', ...people].join('\n') });
  const summary = summaryOf(answer);
  expect(summary.fresh.count).toBe(400);
  expect(summary.fresh.first.length).toBeLessThan(60);
  expect(summary.gone).toMatchObject({ count: 1, ids: ['m1'] });
  expect(JSON.stringify(summary).length).toBeLessThan(20_000);
  const edit = importOf(answer.comparison, new Map([[3, 'other']]), { drop: ['m1'], invite: true });
  expect(edit.rows).toHaveLength(400);
  expect(edit).toMatchObject({
    edit: 'import',
    settled: [{ line: 3, as: 'other' }],
    drop: ['m1'],
    invite: true,
  });
});

import { strToU8, zipSync } from 'fflate';
import {
  importOf,
  readAndCompare,
  rowsOf,
  summaryOf,
  withoutWorkbooks,
  type KnownMember,
  type ListQuestion,
} from './index';

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

/** A workbook of one sheet, as small as one can be. */
function workbook(rows: (string | number)[][]) {
  const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const relations = (type: string, target: string) =>
    `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${office}/${type}" Target="${target}"/></Relationships>`;
  const cell = (value: string | number, at: string) =>
    typeof value === 'number'
      ? `<c r="${at}"><v>${value}</v></c>`
      : `<c r="${at}" t="inlineStr"><is><t>${value}</t></is></c>`;
  const line = (cells: (string | number)[], i: number) =>
    `<row r="${i + 1}">${cells.map((c, k) => cell(c, `${'ABCDEF'[k]}${i + 1}`)).join('')}</row>`;
  const parts = {
    '[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
    '_rels/.rels': relations('officeDocument', 'xl/workbook.xml'),
    'xl/workbook.xml': `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Class" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': relations('worksheet', 'worksheets/sheet1.xml'),
    'xl/worksheets/sheet1.xml': `<worksheet xmlns="${main}"><sheetData>${rows.map(line).join('')}</sheetData></worksheet>`,
  };
  return zipSync(Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)])));
}

test('a workbook is read like any list, its lines numbered as they stand in it; another archive stays what it is', async () => {
  const bytes = workbook([
    ['Name', 'E-mail', 'Number'],
    ['Penhale, Cleo', 'cleo@saltmarsh.example', 4711],
    ['Body, No', 'no address', 1],
  ]);
  const set = zipSync({ 'users.csv': USERS.bytes });
  const torn = { name: 'torn.xlsx', bytes: bytes.slice(0, 200) };
  const files = await withoutWorkbooks([
    { name: 'class.xlsx', bytes },
    { name: 'set.zip', bytes: set },
    torn,
  ]);
  expect([files[1]!.bytes, files[2]]).toEqual([set, torn]);
  const { list } = ask({ files: files.slice(0, 1) });
  expect(list.rows).toMatchObject([{ line: 2, name: 'Cleo Penhale', extra: { Number: '4711' } }]);
  expect(list.bad).toMatchObject([{ line: 3 }]);
  expect(ask({ files: [torn] }).list.fault).toMatch(/\.$/);
});

test('all rows can be had, a page after another', () => {
  const lines = Array.from({ length: 60 }, (_, i) => `P${i},p${i}@saltmarsh.example`);
  const answer = ask({ text: ['Name,E-mail', ...lines].join('\n') });
  const { first, count } = summaryOf(answer).fresh;
  const rest = rowsOf(answer, 'fresh', first.length, 200);
  expect([...first, ...rest]).toEqual(answer.comparison.fresh);
  expect(count).toBe(60);
});

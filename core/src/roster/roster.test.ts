import fc from 'fast-check';
import { isAddress, readRoster } from './index';

const read = (text: string, known: string[] = []) => readRoster(text, new Set(known), 'America/Halifax');

test.each([
  ['commas', 'Name,E-mail,Time zone\nAna Lanyon,ana@saltmarsh.example,Atlantic/Azores'],
  ['semicolons and another order', 'email;tz;student name\nana@saltmarsh.example;Atlantic/Azores;Ana Lanyon'],
  [
    'tabs, a byte order mark and Windows line ends',
    '\uFEFFName\tE-mail\tZone\r\nAna Lanyon\tANA@saltmarsh.example\tAtlantic/Azores\r\n',
  ],
  [
    'first and last names',
    'First name,Last name,E-mail address,Time zone\nAna,Lanyon,ana@saltmarsh.example,Atlantic/Azores',
  ],
  [
    'quotes and blank lines',
    '\n"Name","E-mail","Time zone"\n\n"Ana  Lanyon","ana@saltmarsh.example","Atlantic/Azores"\n',
  ],
])('a class list is read with %s', (_name, text) => {
  const { fresh, bad, fault } = read(text);
  expect(fault).toBeNull();
  expect(bad).toEqual([]);
  expect(fresh).toMatchObject([
    { name: 'Ana Lanyon', email: 'ana@saltmarsh.example', zone: 'Atlantic/Azores' },
  ]);
});

test('a row is new, known, or bad with its line and reason', () => {
  const { fresh, known, bad } = read(
    [
      'Name,E-mail,Time zone',
      'Ana Lanyon,ana@saltmarsh.example,',
      'Ben Garrow,ben@saltmarsh.example,Europe/Lisbon',
      'Cleo,not an address,',
      ',dan@saltmarsh.example,',
      'Eve,ana@saltmarsh.example,',
      'Finn,finn@saltmarsh.example,Nowhere/Else',
      'Gus,,',
    ].join('\n'),
    ['ben@saltmarsh.example'],
  );
  expect(fresh.map((r) => [r.name, r.zone])).toEqual([['Ana Lanyon', 'America/Halifax']]);
  expect(known.map((r) => r.name)).toEqual(['Ben Garrow']);
  expect(bad.map((b) => [b.line, b.reason])).toEqual([
    [4, '"not an address" is not an e-mail address.'],
    [5, 'The name is missing.'],
    [6, 'The same address is on line 2 already.'],
    [7, 'The time zone "Nowhere/Else" is not known. Use a name such as America/Halifax.'],
    [8, 'The e-mail address is missing.'],
  ]);
});

test.each([
  ['', 'There is nothing to read.'],
  ['  \n \n', 'There is nothing to read.'],
  ['Name,Phone\nAna,1', 'No column of addresses'],
  ['E-mail\nana@saltmarsh.example', 'No column of names'],
])('a text that is no class list says why: %j', (text, fault) => {
  expect(read(text).fault).toContain(fault);
});

test.each(['a@b.example', 'first.last+tag@sub.saltmarsh.example', "o'neil@saltmarsh.example"])(
  '%s is an address',
  (a) => {
    expect(isAddress(a)).toBe(true);
  },
);
test.each([
  'a@b',
  '@b.example',
  'a b@c.example',
  'a@b..example',
  'a@-b.example',
  'a@b.example,c@d.example',
  '<a@b.example>',
])('%s is not an address', (a) => expect(isAddress(a)).toBe(false));

test('any text is read without failing, and no row is lost', () => {
  const cell = fc.oneof(
    fc.string({ maxLength: 12 }),
    fc.constantFrom('ana@saltmarsh.example', 'Ana', '"', ';', ',', '\t'),
  );
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 1, maxLength: 4 }), { maxLength: 8 }),
      fc.constantFrom(',', ';', '\t'),
      (rows, mark) => {
        const clean = rows.map((r) =>
          r.map((c) => `"${c.replaceAll('"', '""').replaceAll(/[\r\n]/g, ' ')}"`).join(mark),
        );
        const { fresh, known, bad, fault } = read(['"Name"' + mark + '"E-mail"', ...clean].join('\n'));
        expect(fault).toBeNull();
        const filled = rows.filter((r) => r.some((c) => c.replaceAll(/[\r\n]/g, ' ').trim()));
        expect(fresh.length + known.length + bad.length).toBe(filled.length);
      },
    ),
    { numRuns: 500 },
  );
});

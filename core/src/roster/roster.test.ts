import fc from 'fast-check';
import { decodeText, tidyLine } from '../text';
import {
  ALL_HEADINGS,
  compareLists,
  fieldOf,
  isAddress,
  readClassList,
  writeClassList,
  writeCsv,
  type KnownMember,
} from './index';
import { many } from '../testing/many';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const ana = { name: 'Ana Lanyon', email: 'ana@saltmarsh.example', zone: 'Atlantic/Azores' };

test.each([
  ['commas', 'Name,E-mail,Time zone\nAna Lanyon,ana@saltmarsh.example,Atlantic/Azores'],
  ['semicolons and another order', 'email;tz;student name\nana@saltmarsh.example;Atlantic/Azores;Ana Lanyon'],
  ['bars', 'Name|E-mail|Zone\nAna Lanyon|ana@saltmarsh.example|Atlantic/Azores'],
  [
    'tabs, a byte order mark and Windows line ends',
    '\uFEFFName\tE-mail\tZone\r\nAna Lanyon\tANA@saltmarsh.example\tAtlantic/Azores\r\n',
  ],
  [
    'first and last names',
    'First name,Last name,E-mail address,Time zone\nAna,Lanyon,ana@saltmarsh.example,Atlantic/Azores',
  ],
  ['French headings', 'Nom;Prénom;Courriel;Fuseau horaire\nLanyon;Ana;ana@saltmarsh.example;Atlantic/Azores'],
  ['Portuguese headings', 'Nome,Correio eletrónico,Fuso\nAna Lanyon,ana@saltmarsh.example,Atlantic/Azores'],
  [
    'German headings',
    'Nachname;Vorname;E-Mail-Adresse;Zeitzone\nLanyon;Ana;ana@saltmarsh.example;Atlantic/Azores',
  ],
  ['no heading at all', 'Ana Lanyon\tana@saltmarsh.example\tAtlantic/Azores'],
  ['headings that nobody knows', 'Jina kamili;Barua;Saa\nAna Lanyon;ana@saltmarsh.example;Atlantic/Azores'],
  [
    'quotes and blank lines',
    '\n"Name","E-mail","Time zone"\n\n"Ana  Lanyon","ana@saltmarsh.example","Atlantic/Azores"\n',
  ],
])('a class list is read with %s', (_name, text) => {
  const { rows, bad, fault } = readClassList(text);
  expect(fault).toBeNull();
  expect(bad).toEqual([]);
  expect(rows).toMatchObject([ana]);
});

test('a row is read, or bad with its line and reason, and can be mended in place', () => {
  const text = [
    'Name,E-mail,Time zone',
    'Ana Lanyon,ana@saltmarsh.example,',
    'Cleo,not an address,',
    ',dan@saltmarsh.example,',
    'Eve,ana@saltmarsh.example,',
    'Finn,finn@saltmarsh.example,Nowhere/Else',
    'Gus,,',
  ].join('\n');
  const { rows, bad } = readClassList(text);
  expect(rows.map((r) => [r.name, r.zone])).toEqual([['Ana Lanyon', null]]);
  expect(bad.map((b) => [b.line, b.reason])).toEqual([
    [3, '"not an address" is not an e-mail address.'],
    [4, 'The name is missing.'],
    [5, 'The same address is on line 2 already.'],
    [6, 'The time zone "Nowhere/Else" is not known. Use a name such as America/Halifax.'],
    [7, 'The e-mail address is missing.'],
  ]);
  const mended = readClassList(text, undefined, new Map([[3, ['Cleo', 'cleo@saltmarsh.example', '']]]));
  expect(mended.rows.map((r) => r.name)).toEqual(['Ana Lanyon', 'Cleo']);
  expect(mended.bad).toHaveLength(4);
});

test('what a column is taken for is said, can be changed, and the school’s own columns are kept', () => {
  const text = 'Pupil,Address,Level,Section\nAna Lanyon,ana@saltmarsh.example,B2,East';
  const read = readClassList(text);
  expect(read.headings).toEqual(['Pupil', 'Address', 'Level', 'Section']);
  expect(read.fields).toEqual(['name', 'email', 'keep', 'group']);
  expect(read.rows[0]).toMatchObject({ group: 'East', extra: { Level: 'B2' } });
  const changed = readClassList(text, ['name', 'email', 'group', 'skip']);
  expect(changed.rows[0]).toMatchObject({ group: 'B2', extra: {} });
});

test.each([
  ['', 'There is nothing to read.'],
  ['  \n \n', 'There is nothing to read.'],
  ['Name,Phone\nAna,1', 'No column of addresses'],
  ['E-mail\nana@saltmarsh.example', 'No column of names'],
])('a text that is no class list says why: %j', (text, fault) => {
  expect(readClassList(text).fault).toContain(fault);
});

test.each(['utf-8', 'utf-8 with a mark', 'utf-16le', 'utf-16be', 'utf-16le without a mark', 'windows-1252'])(
  'a file in %s is read',
  (name) => {
    const text = 'Name,E-mail\nZoë Müller,zoe@saltmarsh.example';
    const wide = (swap: boolean, mark: boolean) => {
      const units = [...(mark ? '\uFEFF' : ''), ...text].map((c) => c.charCodeAt(0));
      return Uint8Array.from(units.flatMap((u) => (swap ? [u >> 8, u & 255] : [u & 255, u >> 8])));
    };
    const bytes: Record<string, Uint8Array> = {
      'utf-8': bytesOf(text),
      'utf-8 with a mark': bytesOf('\uFEFF' + text),
      'utf-16le': wide(false, true),
      'utf-16be': wide(true, true),
      'utf-16le without a mark': wide(false, false),
      'windows-1252': Uint8Array.from([...text].map((c) => c.charCodeAt(0))),
    };
    const decoded = decodeText(bytes[name]!);
    expect(decoded.encoding).toBe(name.split(' ')[0]);
    expect(readClassList(decoded.text).rows).toMatchObject([{ name: 'Zoë Müller' }]);
  },
);

const known = (more: Partial<KnownMember>): KnownMember => ({
  id: 'm1',
  ...ana,
  group: null,
  extra: {},
  role: 'student',
  ...more,
});
const members = [
  known({}),
  known({ id: 'm2', name: 'Ben Garrow', email: 'ben@saltmarsh.example' }),
  known({ id: 'm3', name: 'José Peña', email: 'jose@saltmarsh.example', group: 'A' }),
  known({ id: 't', name: 'Maren Oduya', email: 'maren@saltmarsh.example', role: 'teacher' }),
];
const TEXT = [
  'Name,E-mail,Zone,Group,Level',
  'Ana Lanyon,ana@saltmarsh.example,Europe/Lisbon,,B2',
  'PENA Jose,jose.pena@saltmarsh.example,,,',
  'Cleo Penhale,cleo@saltmarsh.example,,,',
  'Maren Oduya,maren@saltmarsh.example,,,',
].join('\n');

test('a list read anew is new, changed, gone; the same name with another address is asked about', () => {
  const { rows } = readClassList(TEXT);
  const asked = compareLists(rows, members);
  expect(asked.fresh.map((r) => r.name)).toEqual(['Cleo Penhale']);
  expect(asked.changed.map((c) => [c.member.id, c.fields])).toEqual([
    [
      'm1',
      [
        { field: 'zone', was: 'Atlantic/Azores', becomes: 'Europe/Lisbon' },
        { field: 'Level', was: '', becomes: 'B2' },
      ],
    ],
  ]);
  expect(asked.gone.map((m) => m.id)).toEqual(['m2']);
  expect(asked.alike.map((a) => [a.row.line, a.member.id])).toEqual([[3, 'm3']]);
  expect(asked.teaching.map((r) => r.name)).toEqual(['Maren Oduya']);
  const same = compareLists(rows, members, new Map([[3, 'same']]));
  expect(same.alike).toEqual([]);
  expect(same.changed.find((c) => c.member.id === 'm3')!.fields.map((f) => f.field)).toEqual([
    'name',
    'email',
  ]);
  const other = compareLists(rows, members, new Map([[3, 'other']]));
  expect(other.fresh.map((r) => r.name)).toEqual(['PENA Jose', 'Cleo Penhale']);
  expect(other.gone.map((m) => m.id)).toEqual(['m2', 'm3']);
});

test('a list that says what is known changes nothing', () => {
  const students = members.filter((m) => m.role === 'student');
  const text = ['Name,E-mail', ...students.map((m) => `${m.name},${m.email}`)].join('\n');
  const result = compareLists(readClassList(text).rows, members);
  expect(result).toMatchObject({ fresh: [], changed: [], gone: [], alike: [], same: 3 });
});

test.each([
  'a@b.example',
  'first.last+tag@sub.saltmarsh.example',
  "o'neil@saltmarsh.example",
  'zoë@saltmarsh.example',
  '用户@例子.测试',
  'अजय@डाटा.भारत',
  'ана@пример.укр',
])('%s is an address', (a) => {
  expect(isAddress(a)).toBe(true);
});
test.each([
  'a@b',
  '@b.example',
  'a b@c.example',
  'a@b..example',
  'a@-b.example',
  'a@b.example,c@d.example',
  '<a@b.example>',
  'a..b@c.example',
  '.a@c.example',
  'a.@c.example',
  'a@b@c.example',
  'a\u200bb@c.example',
  'a@c\u00a0d.example',
])('%s is not an address', (a) => expect(isAddress(a)).toBe(false));

const cell = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom('ana@saltmarsh.example', 'Ana', '"', ';', ',', '\t', 'Europe/Lisbon', '=1+1', 'Prénom'),
);

test('any text is read without failing, no row is lost, and every refusal has its reason', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 1, maxLength: 4 }), { maxLength: 8 }),
      fc.constantFrom(',', ';', '\t', '|'),
      (table, mark) => {
        const clean = table.map((r) =>
          r.map((c) => `"${c.replaceAll('"', '""').replaceAll(/[\r\n]/g, ' ')}"`).join(mark),
        );
        const { rows, bad, fault } = readClassList(['"Name"' + mark + '"E-mail"', ...clean].join('\n'));
        expect(fault).toBeNull();
        const filled = table.filter((r) => r.some((c) => c.replaceAll(/[\r\n]/g, ' ').trim()));
        expect(rows.length + bad.length).toBe(filled.length);
        for (const b of bad) expect(b.reason).toMatch(/\.$/);
        for (const r of rows) expect(isAddress(r.email) && r.name.length > 0).toBe(true);
      },
    ),
    { numRuns: many(20_000) },
  );
});

test('any bytes are decoded and read, or refused with a reason', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
      const { rows, fault } = readClassList(decodeText(bytes).text);
      if (fault) expect(fault).toMatch(/\.$/);
      else for (const r of rows) expect(isAddress(r.email)).toBe(true);
    }),
    { numRuns: many(20_000) },
  );
});

test('a list written out again is read as it was, and no cell of it is a formula', () => {
  const person = fc.record({
    name: fc.stringMatching(/^[=+\-@]?[A-Za-z][A-Za-z ",;]{0,20}$/).filter((n) => n.trim().length > 0),
    n: fc.nat(9999),
  });
  fc.assert(
    fc.property(fc.uniqueArray(person, { minLength: 1, maxLength: 10, selector: (p) => p.n }), (people) => {
      const email = (n: number) => `p${n}@saltmarsh.example`;
      const csv = writeCsv(
        ['Name', 'E-mail'],
        people.map((p) => [p.name, email(p.n)]),
      );
      for (const line of csv.split('\r\n')) expect(line).not.toMatch(/^"?[=+\-@]/);
      const back = readClassList(csv);
      expect(back.bad).toEqual([]);
      expect(back.rows.map((r) => r.email)).toEqual(people.map((p) => email(p.n)));
    }),
  );
});

test.each([
  ['Svenska', 'Förnamn;Efternamn;E-post;Grupp'],
  ['Dansk', 'Fornavn;Efternavn;E-post;Gruppe'],
  ['Suomi', 'Etunimi;Sukunimi;Sähköposti;Ryhmä'],
  ['Polski', 'Imię;Nazwisko;Adres e-mail;Grupa'],
  ['Čeština', 'Jméno;Příjmení;E-mailová adresa;Skupina'],
  ['Magyar', 'Keresztnév;Vezetéknév;E-mail cím;Csoport'],
  ['Română', 'Prenume;Nume;Adresă de e-mail;Grupă'],
  ['Türkçe', 'Adı;Soyadı;E-posta;Şube'],
  ['Ελληνικά', 'Όνομα;Επώνυμο;Ηλεκτρονικό ταχυδρομείο;Ομάδα'],
  ['Русский', 'Имя;Фамилия;Электронная почта;Группа'],
  ['Українська', 'Ім’я;Прізвище;Електронна пошта;Група'],
  ['العربية', 'الاسم الأول;اسم العائلة;البريد الإلكتروني;المجموعة'],
  ['עברית', 'שם פרטי;שם משפחה;דוא״ל;קבוצה'],
  ['فارسی', 'نام کوچک;نام خانوادگی;ایمیل;گروه'],
  ['हिन्दी', 'पहला नाम;उपनाम;ईमेल;समूह'],
  ['Indonesia', 'Nama depan;Nama belakang;Alamat email;Kelompok'],
  ['Tiếng Việt', 'Tên;Họ;Thư điện tử;Nhóm'],
  ['日本語', '名;姓;メールアドレス;グループ'],
  ['中文', '名;姓;电子邮箱;班'],
  ['Deutsch', 'Vorname;Nachname;E-Mail-Adresse;Gruppe'],
  ['Français', 'Prénom;Nom;Courriel;Groupe'],
  ['Español', 'Nombre;Apellidos;Correo electrónico;Grupo'],
])('headings in %s are understood', (_language, headings) => {
  const { fields } = readClassList(`${headings}\nAna;Lanyon;ana@saltmarsh.example;A`);
  expect(fields).toEqual(['first', 'last', 'email', 'group']);
});

test.each([
  ['氏名,メール', 'name'],
  ['姓名,邮箱', 'name'],
  ['이름,이메일', 'name'],
  ['Full name,E-mail', 'name'],
])('a column of whole names in %s', (headings, field) => {
  expect(readClassList(`${headings}\nAna Lanyon,ana@saltmarsh.example`).fields).toEqual([field, 'email']);
});

test('a name that most lines write last first is turned, and can be taken otherwise', () => {
  const text =
    'Name;E-mail\n"Lanyon, Ana";ana@saltmarsh.example\nGarrow, Ben;ben@saltmarsh.example\nCleo;c@d.example';
  const read = readClassList(text);
  expect(read.fields).toEqual(['lastFirst', 'email']);
  expect(read.rows.map((r) => r.name)).toEqual(['Ana Lanyon', 'Ben Garrow', 'Cleo']);
  expect(readClassList(text, ['name', 'email']).rows[0]!.name).toBe('Lanyon, Ana');
  const bare = readClassList('"Lanyon, Ana";ana@saltmarsh.example\n"Garrow, Ben";ben@saltmarsh.example');
  expect(bare.rows.map((r) => r.name)).toEqual(['Ana Lanyon', 'Ben Garrow']);
});

test('a line that says the delimiter is heeded, and the others keep their numbers', () => {
  for (const end of ['\n', '\r\n']) {
    const read = readClassList(['sep=|', 'Name|E-mail', 'Ana, B|ana@saltmarsh.example', 'x|y'].join(end));
    expect(read.rows).toMatchObject([{ line: 3, name: 'Ana, B' }]);
    expect(read.bad).toMatchObject([{ line: 4 }]);
  }
});

test('what cannot be seen in a cell is taken out of it', () => {
  const read = readClassList(
    'Name\u200b,E-mail\nAna\u200b Lan\u00adyon,\u200eana\ufeff@saltmarsh.example\u2069',
  );
  expect(read.rows).toMatchObject([{ name: 'Ana Lanyon', email: 'ana@saltmarsh.example' }]);
});

test('a list that we wrote changes nothing when it is read in again, whatever stands in it', () => {
  const text = fc.oneof(
    fc.string({ maxLength: 20 }),
    fc.constantFrom('=1+1', "'=x", '+1 902', '-', 'a;b|c', ' x '),
  );
  const tidy = text.map((t) => tidyLine(t).replace(/[\p{C}]/gu, '')).filter((t) => t.trim() === t);
  const heading = fc.oneof(
    { weight: 9, arbitrary: tidy.filter((h) => h.length > 0) },
    fc.constantFrom('valueOf', 'constructor', 'toString', '@0.0', 'a@b.example'),
  );
  const person = fc.record({
    name: fc.stringMatching(/^[A-Za-zÀ-ž][A-Za-z ,'-]{0,20}[a-z]$/).map(tidyLine),
    zone: fc.constantFrom('UTC', 'America/Halifax'),
    group: fc.option(tidy.filter((g) => g.length > 0)),
    role: fc.constantFrom('student', 'teacher', 'guest'),
    values: fc.array(tidy, { maxLength: 3 }),
  });
  fc.assert(
    fc.property(
      fc.array(person, { minLength: 1, maxLength: 8 }),
      fc.uniqueArray(heading, { maxLength: 3 }),
      (people, headings) => {
        const members = people.map(({ values, ...p }, i) => ({
          ...p,
          id: `m${i}`,
          email: `p${i}@saltmarsh.example`,
          extra: Object.fromEntries(headings.flatMap((h, k) => (values[k] ? [[h, values[k]]] : []))),
        })) as KnownMember[];
        const csv = writeClassList(
          members.map((m) => ({ ...m, invitation: 'sent', reply: 'accepted 2, 1 session' })),
        );
        const { rows, bad, fault } = readClassList(`\uFEFF${csv}`);
        expect([bad, fault]).toEqual([[], null]);
        const { fresh, changed, gone, same } = compareLists(rows, members);
        expect([fresh, changed, gone]).toEqual([[], [], []]);
        expect(same).toBe(members.filter((m) => m.role === 'student').length);
      },
    ),
  );
});

test('no word of a heading is of two columns, and none is lost', () => {
  const twice = ALL_HEADINGS.filter(([field, word]) => fieldOf(word) !== field);
  expect(twice).toEqual([]);
});

import fc from 'fast-check';
import { compareLists, type Settled, fieldOf, folded, type KnownMember, type ListRow } from './index';

const NAMES = ['Ana Lanyon', 'LANYON, Ana', 'Zoë Müller', 'Zoe Muller', 'Ben Garrow', 'Cleo Penhale'];
const email = fc.integer({ min: 0, max: 12 }).map((n) => `p${n}@saltmarsh.example`);
const row = fc.record({
  name: fc.constantFrom(...NAMES),
  email,
  zone: fc.constantFrom(null, 'Europe/Lisbon', 'America/Halifax'),
  group: fc.constantFrom(null, 'A', 'B'),
  extra: fc.constantFrom<Record<string, string>>({}, { Level: 'B1' }, { Level: 'B2' }),
});
const rowsOf = fc
  .uniqueArray(row, { maxLength: 12, selector: (r) => r.email })
  .map((all): ListRow[] => all.map((r, i) => ({ ...r, line: i + 2 })));
const membersOf = fc
  .uniqueArray(fc.tuple(row, fc.constantFrom('student' as const, 'student' as const, 'teacher' as const)), {
    maxLength: 12,
    selector: ([r]) => r.email,
  })
  .map((all): KnownMember[] =>
    all.map(([r, role], i) => ({ ...r, id: `m${i}`, zone: r.zone ?? 'America/Halifax', role })),
  );

test('every row is one thing, every student of the list is met once or gone', () => {
  fc.assert(
    fc.property(rowsOf, membersOf, (rows, members) => {
      const { fresh, changed, gone, same, alike, twins, teaching } = compareLists(rows, members);
      const met = changed.length + same + alike.length + twins.length;
      expect(fresh.length + met + teaching.length).toBe(rows.length);
      const students = members.filter((m) => m.role === 'student');
      expect(changed.length + same + alike.length + gone.length).toBe(students.length);
      const ids = [
        ...changed.map((c) => c.member.id),
        ...gone.map((m) => m.id),
        ...alike.map((a) => a.member.id),
      ];
      expect(new Set(ids).size).toBe(ids.length);
      for (const r of fresh) expect(members.some((m) => m.email === r.email)).toBe(false);
    }),
  );
});

test('what was settled is not asked again: the same person changes, another is new', () => {
  fc.assert(
    fc.property(rowsOf, membersOf, (rows, members) => {
      const { alike, changed } = compareLists(rows, members);
      const lines = new Set(alike.map((a) => a.row.line));
      const all = (as: 'same' | 'other') =>
        compareLists(rows, members, new Map([...lines].map((l) => [l, as])));
      expect(all('same').alike).toEqual([]);
      // Whoever is the same has at least a new address.
      expect(all('same').changed.length).toBe(changed.length + alike.length);
      // A second row of that name may be the one that is meant.
      for (const { row } of all('other').alike) expect(lines.has(row.line)).toBe(false);
      for (const line of lines) expect(all('other').fresh.some((r) => r.line === line)).toBe(true);
    }),
  );
});

test('a list compared with what it made of the class says nothing new', () => {
  fc.assert(
    fc.property(rowsOf, (rows) => {
      const members: KnownMember[] = rows.map((r, i) => ({
        ...r,
        id: `m${i}`,
        zone: r.zone ?? 'UTC',
        role: 'student',
      }));
      expect(compareLists(rows, members)).toMatchObject({
        fresh: [],
        changed: [],
        gone: [],
        alike: [],
        same: rows.length,
      });
    }),
  );
});

test('a zone that somebody set themselves is not changed by a list', () => {
  const ana: KnownMember = {
    id: 'm1',
    name: 'Ana Lanyon',
    email: 'ana@saltmarsh.example',
    zone: 'Atlantic/Azores',
    group: null,
    extra: {},
    role: 'student',
  };
  const rows: ListRow[] = [{ ...ana, line: 2, zone: 'Europe/Lisbon' }];
  expect(compareLists(rows, [ana]).changed).toHaveLength(1);
  expect(compareLists(rows, [{ ...ana, zoneOwn: true }])).toMatchObject({ changed: [], same: 1 });
});

test.each([
  ['Correo electrónico', 'email'],
  ['E-MAIL', 'email'],
  ['Nachname', 'last'],
  ['prénom', 'first'],
  ['Zona horária', 'zone'],
  ['TURMA', 'group'],
  ['Vollständiger Name', 'name'],
  ['Level', null],
  ['', null],
])('the heading %j is taken for %j', (heading, field) => {
  expect(fieldOf(heading)).toBe(field);
});

test('folding keeps letters of every script and nothing else', () => {
  expect(folded('  Straße  N°5, ÉCOLE ')).toMatch(/^strasse .*5 ecole$/);
  expect(folded('東京 大学')).toBe('東京 大学');
});

const lineOf = (line: number, name: string, email: string, extra: Record<string, string> = {}) => ({
  ...{ line, name, email: `${email}@saltmarsh.example`, zone: null, group: null, extra },
});
test.each<[string, ReturnType<typeof lineOf>[], number[]]>([
  ['one name, two addresses', [lineOf(2, 'Ana Lanyon', 'ana'), lineOf(3, 'LANYON Ana', 'a.lanyon')], [3]],
  [
    'one number',
    [lineOf(2, 'Ana Lanyon', 'ana', { No: '41' }), lineOf(3, 'Ana Lanyon', 'al', { No: '41' })],
    [3],
  ],
  [
    'two numbers',
    [lineOf(2, 'Ana Lanyon', 'ana', { No: '41' }), lineOf(3, 'Ana Lanyon', 'al', { No: '42' })],
    [],
  ],
  ['two names', [lineOf(2, 'Ana Lanyon', 'ana'), lineOf(3, 'Ann Lanyon', 'al')], []],
])('twice in a file? %s', (_name, rows, asked) => {
  const lines = (settled?: Settled) => {
    const { fresh, twins } = compareLists(rows, [], settled);
    return [fresh.map((r) => r.line), twins.map((t) => t.row.line)];
  };
  expect(lines()).toEqual([rows.map((r) => r.line).filter((l) => !asked.includes(l)), asked]);
  if (!asked.length) return;
  expect(lines(new Map([[3, 'twice']]))).toEqual([[2], []]);
  expect(lines(new Map([[2, 'twice']]))).toEqual([[3], []]);
  expect(lines(new Map([[3, 'other']]))).toEqual([[2, 3], []]);
});

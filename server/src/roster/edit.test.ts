import { ListEdit, type MemberScope, type Role } from '@nimble-bell/core/api';
import { autumn } from '@nimble-bell/core/testing';
import type { Db } from '../db/pool';
import { applyListEdit } from './edit';
import type { ListRecord, NewPerson } from './store';

interface Line {
  id: string;
  person: string;
  name: string;
  email: string;
  zone: string;
  role: Role;
  group: string | null;
  scope: MemberScope | null;
  extra: Record<string, string>;
  link: string;
  left: boolean;
}
const list = new Map<string, Line>();
const accounts = new Set<string>();
/** People of other courses, by address. */
const elsewhere = new Map<string, string>();

const here = () => [...list.values()].filter((m) => !m.left);
function mockStore() {
  type Fields = { [K in 'name' | 'zone' | 'group' | 'role' | 'scope']?: ListRecord[K] | undefined };
  return {
    knownMembers: async () => here().map((m) => ({ ...m, zoneOwn: false })),
    memberByAddress: async (_db: Db, _course: string, email: string) =>
      here().find((m) => m.email === email) ?? null,
    enrolAll: async (_db: Db, _course: string, people: readonly NewPerson[]) => {
      for (const p of people) enrol(p.name, p.email, p);
    },
    ownMembers: async (_db: Db, _course: string, ids: readonly string[]) => {
      const found = here().filter((m) => ids.includes(m.id));
      if (found.length < ids.length) throw new Error('not on the list');
      return found;
    },
    setExtra: async (_db: Db, extra: Record<string, string>, id: string) =>
      void (list.get(id)!.extra = extra),
    personBehind: async (_db: Db, id: string) => ({
      personId: list.get(id)!.person,
      account: Number(accounts.has(id)),
    }),
    personOf: async (_db: Db, email: string) => (elsewhere.has(email) ? { id: elsewhere.get(email)! } : null),
    setPerson: async (_db: Db, person: string, id: string) => void (list.get(id)!.person = person),
    setAddress: async (_db: Db, email: string, person: string) => {
      for (const m of list.values()) if (m.person === person) m.email = email;
    },
    onOtherList: async (_db: Db, person: string) =>
      [...elsewhere.values()].includes(person) ? { id: 'x' } : null,
    asNewPerson: async (_db: Db, id: string, email: string) =>
      void Object.assign(list.get(id)!, { person: `new-${id}`, email }),
    writeFields: async (_db: Db, id: string, fields: Fields) => {
      for (const [key, value] of Object.entries(fields))
        if (value !== undefined) Object.assign(list.get(id)!, { [key]: value });
    },
    ofCourse: async (_db: Db, _table: string, _course: string, ids: readonly string[]) =>
      ids.filter((id) => id.startsWith('own')),
    leaveList: async (_db: Db, _now: number, ids: readonly string[]) => {
      for (const id of ids) list.get(id)!.left = true;
    },
    teacherOfAll: async () => here().find((m) => m.role === 'teacher' && !m.scope) ?? null,
    replaceLink: async (_db: Db, link: string, _now: number, id: string) => void (list.get(id)!.link = link),
  };
}
jest.mock('./store', () => mockStore());

function enrol(name: string, email: string, more: Partial<Line & NewPerson> = {}) {
  const id = email.split('@')[0]!;
  const plain = { zone: 'UTC', group: null, extra: {}, link: 'old', left: false };
  list.set(id, {
    ...plain,
    scope: null,
    role: 'student',
    ...more,
    id,
    person: `p-${id}`,
    name,
    email,
  } as Line);
}
const edit = (draft: object) =>
  applyListEdit({ db: {} as Db, courseId: 'c', term: autumn(), now: 5 }, ListEdit.parse(draft));
const change = (members: string[], fields: object) => edit({ edit: 'change', members, fields });
const row = (line: number, name: string, email: string, more: object = {}) => ({
  line,
  name,
  email,
  zone: null,
  group: null,
  extra: {},
  ...more,
});
const A = '@saltmarsh.example';

beforeEach(() => {
  list.clear();
  accounts.clear();
  elsewhere.clear();
  enrol('Maren Oduya', `maren${A}`, { role: 'teacher' });
  enrol('Ana Lanyon', `ana${A}`, { group: 'A' });
  enrol('Ben Tidewell', `ben${A}`);
  accounts.add('maren');
});

test('a list is read in: who is new, changed and gone; a bad line stops all of it', async () => {
  const rows = [row(2, 'Cleo Sandoval', `cleo${A}`), row(3, 'Ana Lanyon', `ana${A}`, { group: 'B' })];
  const bad = [...rows, row(4, 'No Address', 'nowhere')];
  await expect(edit({ edit: 'import', rows: bad })).rejects.toMatchObject({
    code: 'invalid',
    fields: [{ path: 'rows.4' }],
  });
  expect(here()).toHaveLength(3);
  expect(await edit({ edit: 'import', rows, drop: ['ben'] })).toBe(
    'Class list read: 1 new, 1 changed, 1 gone',
  );
  expect(list.get('ana')!.group).toBe('B');
  expect(list.get('cleo')!.zone).toBe('America/Halifax');
  expect(here().map((m) => m.id)).toEqual(['maren', 'ana', 'cleo']);
});

test('somebody is added once, with a real address, and only for what the course has', async () => {
  const add = (person: object) => edit({ edit: 'add', person });
  const cleo = { name: 'Cleo', email: `cleo${A}` };
  await expect(add({ ...cleo, email: `ana${A}` })).rejects.toMatchObject({
    fields: [{ path: 'person.email', message: expect.stringContaining('as student') }],
  });
  await expect(add({ ...cleo, email: 'cleo' })).rejects.toThrow('not an e-mail address');
  const scope = { series: ['foreign'], sessions: [] };
  await expect(add({ ...cleo, role: 'assistant', scope })).rejects.toMatchObject({ code: 'not-found' });
  const own = { series: ['own-1'], sessions: [] };
  expect(await add({ ...cleo, role: 'assistant', scope: own })).toBe('Cleo added as assistant');
});

test('what is one person’s is not given to several, and an account’s is its own', async () => {
  await expect(change(['ana', 'ben'], { name: 'Both' })).rejects.toThrow('one person’s');
  await expect(change(['maren'], { name: 'Somebody' })).rejects.toThrow('looks after their own');
  await expect(change(['ana'], { zone: 'Atlantis/Deep' })).rejects.toMatchObject({
    fields: [{ path: 'zone' }],
  });
  expect(await change(['ana', 'ben'], { group: 'C' })).toBe('2 people: group changed');
  expect([list.get('ana')!.group, list.get('ben')!.group]).toEqual(['C', 'C']);
});

test('a new address: of somebody known it is theirs; of this course alone it is corrected; else a new person’s', async () => {
  await expect(change(['ana'], { email: `ben${A}` })).rejects.toThrow('on the class list already');
  elsewhere.set(`dora${A}`, 'p-dora');
  await change(['ana'], { email: `dora${A}` });
  expect(list.get('ana')!.person).toBe('p-dora');
  await change(['ben'], { email: `benedict${A}` });
  expect(list.get('ben')).toMatchObject({ person: 'p-ben', email: `benedict${A}` });
  elsewhere.set(`ben-elsewhere${A}`, 'p-ben');
  await change(['ben'], { email: `other${A}` });
  expect(list.get('ben')).toMatchObject({ person: 'new-ben', email: `other${A}` });
});

test('a course keeps a teacher for all of it', async () => {
  await expect(edit({ edit: 'drop', members: ['maren'] })).rejects.toThrow('keeps at least one teacher');
  list.get('maren')!.left = false;
  await expect(change(['maren'], { role: 'assistant' })).rejects.toThrow('keeps at least one teacher');
  list.get('maren')!.role = 'teacher';
  expect(await edit({ edit: 'drop', members: ['ana'] })).toBe('Ana Lanyon taken off the list');
});

test('links are replaced for those who are named, and for nobody else', async () => {
  expect(await edit({ edit: 'replace-links', members: ['ana'] })).toBe('Ana Lanyon: the link replaced');
  expect(list.get('ana')!.link).toHaveLength(17);
  expect(list.get('ben')!.link).toBe('old');
});

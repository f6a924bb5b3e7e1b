import { backOf, isSpent, leftWords } from './change';
import type { ListRecord } from './store';

const line = (more: Partial<ListRecord> = {}): ListRecord => ({
  id: 'ana',
  personId: 'p-ana',
  name: 'Ana Lanyon',
  ownName: 'Ana Lanyon',
  email: 'ana@saltmarsh.example',
  zone: 'UTC',
  ownZone: null,
  role: 'student',
  group: 'A',
  link: 'old',
  linkAt: null,
  linkUntil: null,
  pin: '11111111',
  leftAt: null,
  extra: {},
  scope: null,
  ...more,
});

test('what a change did is put back, and nothing else', () => {
  const after = line({ group: 'B' });
  expect(backOf(line(), after, after)).toEqual({ back: { group: 'A' }, kept: [] });
  // A zone that the student gave since, and a name changed by another course, stay as they are.
  const since = line({ group: 'B', zone: 'Atlantic/Azores', email: 'ana.l@saltmarsh.example' });
  expect(backOf(line(), after, since)).toEqual({ back: { group: 'A' }, kept: [] });
});

test('what was changed again since is left, and said', () => {
  const after = line({ group: 'B', role: 'assistant' });
  const since = line({ group: 'C', role: 'assistant' });
  const { back, kept } = backOf(line(), after, since);
  expect(back).toEqual({ role: 'student' });
  expect(kept).toEqual(['group']);
  expect(leftWords([{ name: 'Ana Lanyon', fields: kept }])).toBe(
    '; as it was changed since stays the group of Ana Lanyon',
  );
  expect(leftWords([])).toBe('');
});

test('a replaced link comes back with the PIN it had; replaced again since, neither does', () => {
  const after = line({ link: 'new', linkAt: 5, pin: '22222222' });
  expect(backOf(line(), after, after).back).toEqual({ link: 'old', linkAt: null, pin: '11111111' });
  const again = line({ link: 'newest', linkAt: 9, pin: '33333333' });
  expect(backOf(line(), after, again)).toEqual({ back: {}, kept: ['link'] });
});

test('a name that the course did not give itself is no name of its own again', () => {
  const before = line({ ownName: null });
  const after = line({ name: 'Ana L.', ownName: 'Ana L.' });
  expect(backOf(before, after, after).back).toEqual({ ownName: null });
});

test('a line that became another person’s becomes the first one’s again; their addresses are their own', () => {
  const after = line({ personId: 'p-dora', email: 'dora@saltmarsh.example' });
  expect(backOf(line(), after, after).back).toEqual({ personId: 'p-ana' });
  const corrected = line({ email: 'ana.lanyon@saltmarsh.example' });
  expect(backOf(line(), corrected, corrected).back).toEqual({ email: 'ana@saltmarsh.example' });
});

test('a change from before own names and PINs were kept is undone by what it knows', () => {
  const old = ({ ownName, ownZone, pin, ...rest }: ListRecord): ListRecord => rest;
  const before = old(line());
  const after = old(line({ name: 'Ana L.', link: 'new', linkAt: 5 }));
  expect(backOf(before, after, line({ name: 'Ana L.', link: 'new', linkAt: 5 })).back).toEqual({
    name: 'Ana Lanyon',
    link: 'old',
    linkAt: null,
  });
});

test('a change of the list is spent once every field was changed again, or the person is gone', () => {
  const diff = [{ before: line(), after: line({ group: 'B' }) }];
  const now = (more: Partial<ListRecord>) => new Map([['ana', line(more)]]);
  expect(isSpent(diff, now({ group: 'B' }))).toBe(false);
  expect(isSpent(diff, now({ group: 'C' }))).toBe(true);
  expect(isSpent(diff, new Map())).toBe(true);
  const added = [{ before: null, after: line() }];
  expect(isSpent(added, now({ group: 'C' }))).toBe(false);
  expect(isSpent(added, now({ leftAt: 5 }))).toBe(true);
});

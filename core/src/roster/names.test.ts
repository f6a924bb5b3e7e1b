import fc from 'fast-check';
import { tidyLine } from '../text';
import { faultOfName, PersonName } from './names';
import { sameName } from './same';

test('a name is composed and its spaces are single', () => {
  expect(tidyLine('  Zoe\u0308   Lanyon ')).toBe('Zoë Lanyon');
  expect(PersonName.parse(' María  José ')).toBe('María José');
});

test.each([
  ['a carriage return', 'Ana\rLanyon'],
  ['a line end', 'Ana\nLanyon'],
  ['a mark of direction', 'Ana\u202enoynaL'],
  ['an isolate', 'Ana\u2066Lanyon'],
  ['a space that cannot be seen', 'Ana\u200bLanyon'],
  ['a null', 'Ana\0'],
])('a name with %s is refused', (_what, name) => {
  expect(PersonName.safeParse(name).success).toBe(false);
});

test('names of every script pass, joiners among them', () => {
  for (const name of [
    'Ana Lanyon',
    "O'Brien-Smith",
    '山田 太郎',
    'محمد علی‌زاده',
    'Søren',
    'Nguyễn Văn A',
    'Ana 2',
  ])
    expect(faultOfName(tidyLine(name))).toBeNull();
  expect(faultOfName('---')).toBe('A name has letters in it.');
});

test('a name is the same whatever its accents, capitals, order and letter forms', () => {
  expect(sameName('Maren Oduya', 'ODUYA, maren')).toBe(true);
  expect(sameName('Maren Oduya', 'Ｍａｒｅｎ Oduyá')).toBe(true);
  expect(sameName('Maren Oduya', 'Maren Oduyo')).toBe(false);
});

test('what is taken as a name is never changed by being taken again', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (text) => {
      const once = PersonName.safeParse(text);
      if (once.success) expect(PersonName.parse(once.data)).toBe(once.data);
    }),
  );
});

import { KNOWN_LANGUAGES, languageWords } from './languages';
import { lengthRead, lengthWords, momentWords, preparingWords } from './words';

test.each([
  [0, '0:00'],
  [59_400, '0:59'],
  [247_000, '4:07'],
  [3_725_000, '1:02:05'],
])('%d ms is read as %s', (ms, words) => expect(lengthWords(ms)).toBe(words));

test.each(['0:00', '0:05.25', '4:07', '12:00.5', '1:02:05.001'])(
  '%s is read, and written as it was',
  (words) => {
    expect(momentWords(lengthRead(words)!)).toBe(words);
  },
);

test.each(['', '7', '4:75', '1:2:3:4', 'soon', '-1:00'])('%s is no moment', (words) =>
  expect(lengthRead(words)).toBeNull(),
);

test('a recording that cannot be watched says why', () => {
  expect(preparingWords({ state: 'running', progress: 0 })).toBe('Being recorded now');
  expect(preparingWords({ state: 'preparing', progress: 0.42 })).toBe('Being prepared, 42 %');
  expect(preparingWords({ state: 'expired', progress: 1 })).toContain('is gone');
  expect(preparingWords({ state: 'failed', progress: 0 })).toContain('tried again');
});

test('languages have the names that the platform gives them, known ones too; what is none keeps its tag', () => {
  const names = new Intl.DisplayNames('en', { type: 'language' });
  for (const [tag, name] of Object.entries(KNOWN_LANGUAGES))
    expect([tag, names.of(tag)]).toEqual([tag, name]);
  expect([languageWords('en'), languageWords('pt-BR'), languageWords('no tag')]).toEqual([
    'English',
    'Brazilian Portuguese',
    'no tag',
  ]);
});

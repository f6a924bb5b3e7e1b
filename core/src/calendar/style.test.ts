import {
  KNOWN_LOCALES,
  PLAIN,
  setStyle,
  styleByPlatform,
  styleOfLocale,
  timeWords,
  writingFor,
  type Style,
} from './style';
import { clockWords, dateWords, dayWords, instantWords, patternWords } from './words';

const american: Style = { hours: '12', order: 'month first', weekBegins: 'sunday' };
const noon = Date.UTC(2026, 9, 6, 12);
afterEach(() => setStyle(PLAIN));

test('days and hours are written as a locale has them', () => {
  expect(styleOfLocale('en-US')).toEqual(american);
  expect(styleOfLocale('de-DE')).toEqual({ hours: '24', order: 'day first', weekBegins: 'monday' });
  expect(styleOfLocale('ar-EG')).toMatchObject({ hours: '12', weekBegins: 'saturday' });
  expect(styleOfLocale('no such thing')).toEqual(PLAIN);
});

test('all words of time follow the reader, and nobody else is touched', () => {
  const written = () => [
    ...[dateWords('2026-10-06'), dayWords('2026-10-06'), instantWords(noon, 'UTC'), clockWords(noon, 'UTC')],
    patternWords({
      kind: 'weekly',
      every: 1,
      lingerMinutes: 0,
      days: [{ day: 'tuesday', start: '11:30', minutes: 80 }],
      ends: { by: 'term' },
    }),
  ];
  const plain = ['Tue 6 Oct', 'Tue 6 Oct 2026', 'Tue 6 Oct, 12:00', '12:00', 'Tue 11:30–12:50'];
  expect(written()).toEqual(plain);
  expect(writingFor(american, written)).toEqual([
    ...['Tue Oct 6', 'Tue Oct 6, 2026', 'Tue Oct 6, 12:00 pm', '12:00 pm', 'Tue 11:30 am–12:50 pm'],
  ]);
  expect(written()).toEqual(plain);
  expect(() =>
    writingFor(american, () => {
      throw new Error('no');
    }),
  ).toThrow();
  expect(written()).toEqual(plain);
});

test('midnight and noon have no nought in twelve hours', () => {
  setStyle(american);
  expect([0, 59, 720, 779, 1439].map(timeWords)).toEqual([
    ...['12:00 am', '12:59 am', '12:00 pm', '12:59 pm', '11:59 pm'],
  ]);
});

test('what is written down of a locale is what the platform says of it; of others the platform is asked', () => {
  const all = KNOWN_LOCALES.flatMap(([, , , tags]) => tags.split(' '));
  expect(new Set(all).size).toBe(all.length);
  for (const tag of all) expect([tag, styleOfLocale(tag)]).toEqual([tag, styleByPlatform(tag)]);
  expect(styleOfLocale('mt-MT')).toEqual(styleByPlatform('mt-MT'));
});

import type { Weekday } from './plan';
import { toClock, WEEKDAYS } from './localDate';

/** How a reader is used to have days and hours written. The words themselves are English. */
export interface Style {
  hours: '24' | '12';
  /** "6 Oct" or "Oct 6". */
  order: 'day first' | 'month first';
  weekBegins: Weekday;
}

/** Where nobody has said anything. */
export const PLAIN: Style = { hours: '24', order: 'day first', weekBegins: 'monday' };

/** What a person chose of it; what is left out is as their browser, or else the college, has it. */
export type OwnStyle = Partial<Style>;

/** Chromium and Safari know the week's first day, by either name; it is not in the types yet. */
type WeekLocale = Intl.Locale & { weekInfo?: { firstDay: number }; getWeekInfo?: () => { firstDay: number } };

/**
 * As many readers have it, by how it is there: what a platform says of them, written down, for a weak phone takes a quarter of a
 * second to look it up. A test holds it against the platform.
 */
export const KNOWN_LOCALES: readonly [
  hours: Style['hours'],
  order: 'day' | 'month',
  Weekday,
  tags: string,
][] = [
  ['12', 'month', 'sunday', 'en-US en-CA en zh-TW ko-KR ko'],
  [
    '24',
    'day',
    'monday',
    'en-GB en-IE de-DE de-AT de-CH de fr-FR fr-BE fr-CH fr es-ES es it-IT it nl-NL nl-BE nl sv-SE sv da-DK da nb-NO nb fi-FI fi pl-PL pl cs-CZ cs ru-RU ru uk-UA uk tr-TR tr ro-RO ro vi-VN vi',
  ],
  ['12', 'day', 'monday', 'en-AU en-NZ es-AR el-GR el'],
  ['12', 'day', 'sunday', 'en-IN es-MX hi-IN hi'],
  ['24', 'day', 'sunday', 'en-ZA fr-CA pt-BR pt-PT pt he-IL he th-TH th id-ID id'],
  ['24', 'month', 'monday', 'hu-HU hu zh-CN zh'],
  ['24', 'month', 'sunday', 'ja-JP ja'],
  ['12', 'day', 'saturday', 'ar-EG ar'],
];

/** A locale's own way (BCP 47 tag; CLDR). */
export function styleOfLocale(tag: string): Style {
  const known = KNOWN_LOCALES.find(([, , , tags]) => tags.split(' ').includes(tag));
  if (!known) return styleByPlatform(tag);
  const [hours, first, weekBegins] = known;
  return { hours, order: `${first} first`, weekBegins };
}

/** The same as the platform has it. */
export function styleByPlatform(tag: string): Style {
  let locale: WeekLocale;
  try {
    locale = new Intl.Locale(tag);
  } catch {
    return PLAIN;
  }
  const format = new Intl.DateTimeFormat(tag, { day: 'numeric', month: 'short', hour: 'numeric' });
  const { hour12 } = format.resolvedOptions();
  const parts = format.formatToParts(0);
  const at = (type: string) => parts.findIndex((p) => p.type === type);
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1;
  return {
    hours: hour12 ? '12' : '24',
    order: at('month') < at('day') ? 'month first' : 'day first',
    weekBegins: WEEKDAYS[first - 1] ?? 'monday',
  };
}

let style: Style = PLAIN;

/** The style that words are written in now. */
export const styleNow = (): Style => style;

/** From here on words are written so: a page has one reader. */
export const setStyle = (next: Style) => {
  style = next;
};

/** Writes something for one reader among several, and then goes on as before. What writes must not wait for anything. */
export function writingFor<T>(reader: Style, write: () => T): T {
  const before = style;
  style = reader;
  try {
    return write();
  } finally {
    style = before;
  }
}

/** Minutes after midnight as a time: "18:30", "6:30 pm". */
export function timeWords(minutes: number): string {
  if (style.hours === '24') return toClock(minutes);
  const [hour, rest] = [Math.floor(minutes / 60) % 24, minutes % 60];
  return `${hour % 12 || 12}:${String(rest).padStart(2, '0')} ${hour < 12 ? 'am' : 'pm'}`;
}

/** A day of a month: "6 Oct", "Oct 6". */
export const dayOfMonthWords = (day: number, month: string): string =>
  style.order === 'month first' ? `${month} ${day}` : `${day} ${month}`;

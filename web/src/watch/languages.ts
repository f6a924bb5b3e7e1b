/** Languages that captions are often in, as the platform names them: a weak phone takes a fifth of a second to look one up. */
export const KNOWN_LANGUAGES: Readonly<Record<string, string>> = {
  ar: 'Arabic',
  de: 'German',
  en: 'English',
  es: 'Spanish',
  fr: 'French',
  hi: 'Hindi',
  it: 'Italian',
  ja: 'Japanese',
  nl: 'Dutch',
  pl: 'Polish',
  pt: 'Portuguese',
  ru: 'Russian',
  uk: 'Ukrainian',
  zh: 'Chinese',
};

/** A language by its English name, or by its tag where it has none here. */
export function languageWords(tag: string): string {
  const known = KNOWN_LANGUAGES[tag];
  if (known) return known;
  try {
    return new Intl.DisplayNames('en', { type: 'language' }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}

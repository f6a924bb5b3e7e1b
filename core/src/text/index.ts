import { z } from 'zod';

export * from './decode';

/**
 * Characters that do not belong in a line: controls, line ends, marks of direction, invisible format characters, and what
 * is not assigned. The two joiners stay: words of several scripts, and many pictures, are written with them.
 */
const OUT_OF_PLACE = /[\p{Cc}\p{Zl}\p{Zp}\p{Co}\p{Cs}\p{Cn}]|(?![\u200c\u200d])\p{Cf}/u;

/** Whether something stands in it that cannot be seen, and does not belong there. */
export const hidesSomething = (text: string): boolean => OUT_OF_PLACE.test(text);

/** A line as it is kept: composed (NFC), single spaces, none at the ends. Line ends are left, to be refused. */
export const tidyLine = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/[^\S\r\n\u2028\u2029\v\f\u0085]+/g, ' ')
    .trim();

/** A text of several lines as it is kept: composed, its line ends plain, without controls and what else cannot be seen. */
export const tidyProse = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/\r\n?|[\u0085\u2028\u2029]/g, '\n')
    .split('\n')
    .map((l) =>
      l.replace(/[\p{Cc}\p{Co}\p{Cs}\p{Cn}]|(?![\u200c\u200d])\p{Cf}/gu, (c) => (c === '\t' ? ' ' : '')),
    )
    .join('\n');

/** A title or name of a thing, at any way in: tidied, and refused in words where it cannot be one. */
export const line = (missing: string, longest: number, shortest = 1) =>
  z
    .string()
    .transform(tidyLine)
    .pipe(
      z
        .string()
        .min(shortest, missing)
        .max(longest, `At most ${longest} characters.`)
        .refine(
          (text) => !hidesSomething(text),
          'There is a character in it that cannot be seen, such as a line end.',
        ),
    );

/** Some words of several lines, or none. */
export const prose = (longest: number) =>
  z
    .string()
    .transform(tidyProse)
    .pipe(z.string().trim().max(longest, `At most ${longest} characters.`))
    .default('');

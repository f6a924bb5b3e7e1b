import { z } from 'zod';
import { folded } from './headings';

/**
 * Characters that do not belong in a name: controls, line ends, marks of direction, invisible format characters, and what
 * is not assigned. The two joiners stay: names in several scripts are written with them.
 */
const OUT_OF_PLACE = /[\p{Cc}\p{Zl}\p{Zp}\p{Co}\p{Cs}\p{Cn}]|(?![\u200c\u200d])\p{Cf}/u;

/** A name as it is kept: composed (NFC), single spaces, none at the ends. */
export const tidyName = (name: string): string =>
  name
    .normalize('NFC')
    .replace(/[^\S\r\n\u2028\u2029\v\f\u0085]+/g, ' ')
    .trim();

/** What is wrong with a name, in a sentence; null where nothing is. */
export function faultOfName(name: string): string | null {
  if (!name) return 'The name is missing.';
  if (name.length > 120) return 'The name is longer than 120 characters.';
  if (OUT_OF_PLACE.test(name))
    return 'The name has a character in it that cannot be seen, such as a line end.';
  if (!/[\p{L}\p{N}]/u.test(name)) return 'A name has letters in it.';
  return null;
}

/** A name at any way in: tidied, and refused in words where it cannot be one. */
export const PersonName = z
  .string()
  .max(400, 'At most 120 characters.')
  .transform(tidyName)
  .superRefine((name, ctx) => {
    const message = faultOfName(name);
    if (message) ctx.addIssue({ code: 'custom', message });
  });

/** Whether two names would be read as the same: whatever their accents, capitals, spaces and order of parts. */
export const sameName = (a: string, b: string): boolean => key(a) === key(b);
const key = (name: string) =>
  folded(name.normalize('NFKC'))
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .sort()
    .join(' ');

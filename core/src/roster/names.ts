import { z } from 'zod';
import { hidesSomething, tidyLine } from '../text';

/** What is wrong with a name, in a sentence; null where nothing is. */
export function faultOfName(name: string): string | null {
  if (!name) return 'The name is missing.';
  if (name.length > 120) return 'The name is longer than 120 characters.';
  if (hidesSomething(name)) return 'The name has a character in it that cannot be seen, such as a line end.';
  if (!/[\p{L}\p{N}]/u.test(name)) return 'A name has letters in it.';
  return null;
}

/** A name at any way in: tidied, and refused in words where it cannot be one. */
export const PersonName = z
  .string()
  .max(400, 'At most 120 characters.')
  .transform(tidyLine)
  .superRefine((name, ctx) => {
    const message = faultOfName(name);
    if (message) ctx.addIssue({ code: 'custom', message });
  });

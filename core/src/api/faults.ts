import type { z } from 'zod';

/** What is wrong with one value: where it is, and a sentence. */
export interface Fault {
  path: (string | number)[];
  message: string;
}

type Issue = z.core.$ZodIssue;

/** Every fault of a value that does not fit its schema. Of a choice of shapes, those of the shape that fits best. */
export const faultsOf = (error: z.ZodError): Fault[] => error.issues.flatMap((issue) => flat(issue, []));

function flat(issue: Issue, at: (string | number)[]): Fault[] {
  const path = [...at, ...(issue.path as (string | number)[])];
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => ({ path: [...path, key], message: 'There is no such field.' }));
  if (issue.code === 'invalid_union' && issue.errors.length) {
    const branches = issue.errors.map((errors) => errors.flatMap((e) => flat(e, path)));
    return branches.reduce((best, b) => (b.length < best.length ? b : best));
  }
  return [{ path, message: sentenceOf(issue) }];
}

const KINDS: Record<string, string> = {
  string: 'Give a text.',
  number: 'Give a number.',
  int: 'Give a whole number.',
  array: 'Give a list.',
  object: 'Give an object with its fields.',
  boolean: 'Give true or false.',
};

function sentenceOf(issue: Issue): string {
  const own = !/^(Invalid|Too (small|big):|Unrecognized)/.test(issue.message);
  if (issue.code === 'invalid_type') {
    if (/received undefined$/.test(issue.message)) return 'This is missing.';
    return own ? issue.message : (KINDS[issue.expected] ?? issue.message);
  }
  if (own) return issue.message;
  if (issue.code === 'invalid_value')
    return `Give ${issue.values.length > 1 ? 'one of ' : ''}${issue.values.join(', ')}.`;
  if (issue.code === 'invalid_union') return 'Give one of the known kinds.';
  if (issue.code === 'too_big')
    return `At most ${issue.maximum}${issue.origin === 'string' ? ' characters' : ''}.`;
  if (issue.code === 'too_small')
    return issue.minimum === 1 && issue.origin === 'string' ? 'This is empty.' : `At least ${issue.minimum}.`;
  return issue.message;
}

/** `$.series[0].pattern.days[1].start` */
export const jsonPath = (path: readonly (string | number)[]): string =>
  path.reduce<string>(
    (text, part) =>
      typeof part === 'number'
        ? `${text}[${part}]`
        : /^\w+$/.test(part)
          ? `${text}.${part}`
          : `${text}[${JSON.stringify(part)}]`,
    '$',
  );

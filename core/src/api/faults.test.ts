import { z } from 'zod';
import { faultsOf, jsonPath } from './faults';
import { SeriesInput } from '../calendar/series';

const said = (schema: z.ZodType, value: unknown) => {
  const result = schema.safeParse(value);
  return result.success ? [] : faultsOf(result.error).map((f) => `${jsonPath(f.path)}: ${f.message}`);
};

test('every fault has its path and a sentence', () => {
  const schema = z.strictObject({
    name: z.string().max(3),
    size: z.number().min(2),
    list: z.array(z.boolean()).max(1),
    kind: z.enum(['a', 'b']),
  });
  expect(said(schema, { name: 'long', size: 1, list: ['x'], kind: 'c', more: 1 })).toEqual([
    '$.name: At most 3 characters.',
    '$.size: At least 2.',
    '$.list[0]: Give true or false.',
    '$.kind: Give one of a, b.',
    '$.more: There is no such field.',
  ]);
  expect(said(schema, { name: 3 }).slice(0, 2)).toEqual(['$.name: Give a text.', '$.size: This is missing.']);
  expect(said(schema, null)).toEqual(['$: Give an object with its fields.']);
});

test('of several shapes the faults of the one that fits best are told', () => {
  const shape = z.union([
    z.strictObject({ a: z.string(), b: z.number() }),
    z.strictObject({ c: z.string() }),
  ]);
  expect(said(shape, { a: 'x', b: 'y' })).toEqual(['$.b: Give a number.']);
  expect(said(shape, { c: 1 })).toEqual(['$.c: Give a text.']);
});

test('a room without dates has no pattern, and any other series has one', () => {
  expect(said(SeriesInput, { title: 'Room', kind: 'open', pattern: null })).toEqual([]);
  expect(said(SeriesInput, { title: 'Lecture', pattern: null })).toEqual(['$.pattern: Say when it meets.']);
  expect(jsonPath(['a b', 0, 'c'])).toBe('$["a b"][0].c');
});
